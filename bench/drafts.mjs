// Drafts of hours of stream, unattended: how long, which of the planted moments, how exactly; then all of it rendered.
import { addToShelf } from '../scripts/headless.mjs'
import { makeStream } from './longStream.mjs'
import { ffmpeg } from './measure.mjs'

const MINUTES = Number(process.env.BRIMBLE_DRAFTS_MINUTES ?? 120)
const MOMENTS = 10
const SHAPES = ['Tall feed', 'Portrait feed', 'Square feed']

/** Everything in a table of the application's own database. */
function allOf(page, table) {
  return page.evaluate(
    (name) =>
      new Promise((resolve) => {
        const open = indexedDB.open('brimble')
        open.onsuccess = () => {
          const all = open.result.transaction(name).objectStore(name).getAll()
          all.onsuccess = () => {
            open.result.close()
            resolve(all.result)
          }
        }
      }),
    table,
  )
}

export async function drafts({ page, memory }) {
  const { file, truth } = makeStream(`stream-${MINUTES}`, MINUTES, MOMENTS)
  const began = performance.now()
  ffmpeg(['-skip_frame', 'nokey', '-i', file, '-vf', 'scale=64:36', '-f', 'null', '-'])
  const referenceSeconds = (performance.now() - began) / 1000
  await addToShelf(page, file)
  await page.getByRole('button', { name: 'Make drafts…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Make drafts' })
  for (const outlet of SHAPES) await dialog.getByLabel(outlet).check()
  const started = performance.now()
  const seconds = () => (performance.now() - started) / 1000
  await dialog.getByRole('button', { name: 'Make drafts', exact: true }).click()
  let [picked, first, run] = [NaN, NaN, null]
  while (run?.state !== 'done') {
    await page.waitForTimeout(500)
    run = (await allOf(page, 'draftRuns')).at(-1) ?? null
    if (Number.isNaN(picked) && run?.picks.length > 0) picked = seconds()
    if (Number.isNaN(first) && run?.picks.some((p) => p.state === 'made')) first = seconds()
    if (run?.state === 'stopped') throw new Error(`drafts stopped: ${run.problem}`)
  }
  const last = seconds()
  const peak = await memory.peak()
  const spans = run.picks.map(({ moment }) => ({ from: moment.inMicros / 1e6, to: moment.outMicros / 1e6 }))
  const found = truth.moments.flatMap((m) => {
    const span = spans.find((s) => s.from < m.peak + 1 && s.to > m.peak + 1)
    return span ? [Math.max(Math.abs(span.from - m.from), Math.abs(span.to - m.to))] : []
  })
  const edges = spans.flatMap((s) => [s.from, s.to])
  const cut = edges.filter((t) => truth.words.some((w) => t > w.from + 0.02 && t < w.to - 0.02))
  process.stdout.write(
    `  looked through in ${picked.toFixed(0)} s, first draft after ${first.toFixed(0)} s, last after ${last.toFixed(0)} s; ` +
      `${found.length} of ${MOMENTS} planted moments, both edges within 0.5 s for ${found.filter((d) => d <= 0.5).length}; ` +
      `${cut.length} of ${edges.length} edges in a word\n`,
  )
  await page.getByRole('button', { name: 'Choose all' }).click()
  const rendering = performance.now()
  await page.getByRole('button', { name: /^Render all shapes of/ }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Render \d+ files$/ })
    .click()
  for (;;) {
    const kinds = (await allOf(page, 'renders')).map((r) => r.state.kind)
    if (kinds.includes('failed')) throw new Error('a render failed')
    if (kinds.filter((k) => k === 'finished').length >= SHAPES.length * run.picks.length) break
    await page.waitForTimeout(2000)
  }
  return [
    { name: `drafts-${MINUTES}-minutes`, seconds: last, referenceSeconds, ...peak },
    {
      name: 'drafts-rendered',
      seconds: (performance.now() - rendering) / 1000,
      referenceSeconds: NaN,
      ...(await memory.peak()),
    },
  ]
}
