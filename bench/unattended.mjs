// Thirty-six renders in a row that nobody looks at: twelve highlights of five seconds in tall, portrait and square.
// What the tab holds while each third of a
// dozen is made is told; the first third is left out, since a tab fills up to what it works with.
import { median } from './measure.mjs'

const HIGHLIGHTS = 12
const SHAPES = 3
const RECORDED = 'demo-last-gate'

export async function unattended({ page, memory }) {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^The radio is calling/ }).waitFor()
  await page.evaluate(copies, { id: RECORDED, highlights: HIGHLIGHTS })
  await page.goto('/outbox/sheet')
  for (let n = 1; n <= HIGHLIGHTS; n++)
    await page.getByRole('checkbox', { name: `Choose Flight ${n}`, exact: true }).check()
  await page.getByRole('button', { name: `Render all shapes of ${HIGHLIGHTS}` }).click()
  await page.getByRole('link', { name: 'Files', exact: true }).click()
  await memory.peak()
  const peaks = []
  let highest = { privateMb: 0, ownMb: 0, residentMb: 0 }
  const started = performance.now()
  for (let n = 1; n <= HIGHLIGHTS; n++) {
    await page.waitForFunction(
      (files) => document.querySelectorAll('article[data-state=finished]').length >= files,
      n * SHAPES,
      { timeout: 600_000 },
    )
    const peak = await memory.peak()
    highest = {
      privateMb: Math.max(highest.privateMb, peak.privateMb),
      ownMb: Math.max(highest.ownMb, peak.ownMb),
      residentMb: Math.max(highest.residentMb, peak.residentMb),
    }
    peaks.push(peak.ownMb)
    process.stdout.write(`  after ${n * SHAPES} files: ${peaks.at(-1).toFixed(0)} MB of its own\n`)
  }
  const failed = await page.locator('article[data-state=failed]').count()
  if (failed > 0) throw new Error(`${failed} renders failed`)
  const seconds = (performance.now() - started) / 1000
  // While the 4th to 6th file were made, and the last three.
  const [, sixth] = peaks
  const last = peaks.at(-1)
  process.stdout.write(
    `  from the 6th to the 36th ${(100 * (last / sixth - 1)).toFixed(1)} %, at its highest ${(100 * (Math.max(...peaks.slice(1)) / sixth - 1)).toFixed(1)} %; median ${median(peaks.slice(1)).toFixed(0)} MB\n`,
  )
  return [{ name: 'unattended', seconds, referenceSeconds: NaN, ...highest }]
}

async function copies({ id, highlights }) {
  const opened = (request) =>
    new Promise(
      (resolve, reject) => (
        (request.onsuccess = () => resolve(request.result)),
        (request.onerror = () => reject(request.error))
      ),
    )
  const db = await opened(indexedDB.open('brimble'))
  const store = db.transaction('highlights', 'readwrite').objectStore('highlights')
  const highlight = await opened(store.get(id))
  for (let n = 1; n <= highlights; n++) {
    const [passage] = highlight.passages
    const inMicros = passage.inMicros + n * 500_000
    await opened(
      store.put({
        ...highlight,
        id: `flight-${n}`,
        name: `Flight ${n}`,
        passages: [{ ...passage, strikes: [], inMicros, outMicros: inMicros + 5_000_000 }],
      }),
    )
  }
  db.close()
}
