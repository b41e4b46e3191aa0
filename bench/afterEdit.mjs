// A minute of highlight on the Bench: how long after an edit the gauges show what is found in it, its sound listened
// to again.
import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'

/** Field and value of each edit, by what it changes; the passage is 0 to 60 s of the recording before the first. */
const EDITS = {
  speed: ['110', '120', '100', '130', '90', '140', '115', '100'].map((value) => ['Speed', value]),
  cut: [
    ['Out point', '55'],
    ['Out point', '50'],
    ['Out point', '58'],
    ['In point', '2'],
    ['In point', '4'],
    ['In point', '1'],
  ],
  levels: ['3', '6', '1', '5', '0'].map((value) => ['Level', value]),
  // Half a minute that is known and half a minute that was never heard.
  'new-sound': [
    ['In point', '30'],
    ['Out point', '90'],
    ['In point', '60'],
    ['Out point', '120'],
    ['In point', '90'],
    ['Out point', '150'],
  ],
}

/** Longest that is waited for. */
const PATIENCE_MS = 30_000

/**
 * A person takes at least so long to find a file; meanwhile the recording is listened to for the speech that music
 * goes down under.
 */
const CHOOSING_MS = 4000

/** What has been up to date for so long stays so. */
const CALM_MS = 4000

export async function afterEdit({ page, memory }) {
  const recording = join(mkdtempSync(join(tmpdir(), 'brimble-bench-')), 'long.mp4')
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-stream_loop',
    '9',
    '-i',
    join(root, 'public/demo/ridge-cup-stream.mp4'),
    '-c',
    'copy',
    '-t',
    '155',
    recording,
  ])
  await addToShelf(page, recording)
  await page.getByRole('button', { name: /^Cut a highlight from/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  await page.getByRole('button', { name: /LUFS/ }).first().waitFor()
  await page.evaluate(watchStaleness)
  await edited(page, ['Out point', '60'])
  const rows = []
  for (const [name, edits] of Object.entries(EDITS)) {
    const waits = []
    for (const edit of edits) {
      const took = await edited(page, edit)
      if (name !== 'new-sound' || edit[0] === 'Out point') waits.push(took)
    }
    rows.push(row(name, waits, await memory.peak()))
  }
  const waits = []
  // Each is heard for the first time when it is laid under the highlight: all of a minute is decoded first, and
  // brought from 44.1 kHz to 48. The first has the recording listened to for speech as well.
  for (const n of [1, 2, 3, 4]) {
    const music = join(dirname(recording), `music-${n}.m4a`)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `aevalsrc='0.2*sin(2*PI*${200 + 10 * n}*t)*(1+sin(t))+0.02*random(${n})':s=44100:c=stereo:d=60`,
      '-c:a',
      'aac',
      '-b:a',
      '192k',
      music,
    ])
    waits.push(await laidUnder(page, music))
  }
  rows.push(row('first-music', waits.splice(0, 1), await memory.peak()))
  rows.push(row('new-music', waits, await memory.peak()))
  return rows
}

function row(name, waits, peak) {
  waits.sort((a, b) => a - b)
  const [medianMs, worstMs] = [waits[Math.floor(waits.length / 2)], waits.at(-1)]
  process.stdout.write(
    `  ${name}: up to date ${Math.round(medianMs)} ms after an edit (median of ${waits.length}), ${Math.round(worstMs)} ms at worst\n`,
  )
  return { name: `after-edit, ${name}`, seconds: medianMs / 1000, referenceSeconds: NaN, medianMs, worstMs, ...peak }
}

/** Lays a file under the highlight; for how many ms what is found is out of date then. */
async function laidUnder(page, file) {
  await page.getByRole('button', { name: 'Music' }).click()
  await page.waitForTimeout(CHOOSING_MS)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add a file' }).click()
  const chosen = await chooser
  const from = await page.evaluate(() => performance.now())
  await chosen.setFiles(file)
  await page.waitForFunction(
    ([t, calm]) => window.freshAt > t && window.stale === null && performance.now() - window.freshAt > calm,
    [from, CALM_MS],
    { timeout: PATIENCE_MS, polling: 100 },
  )
  // All of it: where speech is found later, it is measured once more.
  const took = await page.evaluate(
    (t) => window.staleFor.filter(([at]) => at > t).reduce((sum, [, ms]) => sum + ms, 0),
    from,
  )
  await page.getByRole('button', { name: /^Remove music-/ }).click()
  await page.waitForTimeout(4000)
  await page.keyboard.press('Escape')
  return took
}

/**
 * Changes a number of the first passage; ms from the key that does so until what is found has been out of date and is
 * so no more.
 */
async function edited(page, [label, value]) {
  await page.getByRole('button', { name: 'Settings of passage 1' }).click()
  const field = page.getByRole('textbox', { name: label, exact: true })
  await field.fill(value)
  const from = await page.evaluate(() => performance.now())
  await field.press('Enter')
  await page.waitForFunction((t) => window.freshAt > t, from, { timeout: PATIENCE_MS, polling: 100 })
  // The Sheet's pictures and whatever else follows an edit are done before the next one.
  await page.waitForTimeout(2500)
  await page.keyboard.press('Escape')
  return page.evaluate((t) => window.freshAt - t, from)
}

/**
 * Runs in the page: `freshAt` is when what is found was up to date again for the last time, `stale` since when it is
 * not, `staleFor` all times and for how long it was not.
 */
function watchStaleness() {
  window.stale = null
  window.staleFor = []
  const look = () => {
    const is = document.querySelector('[data-stale]')?.getAttribute('data-stale')
    const now = performance.now()
    if (is === 'true') window.stale ??= now
    if (is !== 'false' || window.stale === null) return
    window.staleFor.push([window.stale, now - window.stale])
    window.stale = null
    window.freshAt = now
  }
  // Looking at every picture instead took a good part of the page's own thread.
  new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributeFilter: ['data-stale'] })
  look()
}
