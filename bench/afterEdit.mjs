// A minute of highlight on the Bench: how long after an edit the gauges show what is found in it, its sound listened to again.
import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'

/** Field and value of each edit, by what it changes; the passage is 0 to 60 s of the recording before the first. */
const EDITS = {
  speed: ['110', '120', '100', '130', '90', '140', '115', '100'].map((value) => ['Speed', value]),
  cut: [['Out point', '55'], ['Out point', '50'], ['Out point', '58'], ['In point', '2'], ['In point', '4'], ['In point', '1']],
  levels: ['3', '6', '1', '5', '0'].map((value) => ['Level', value]),
  // Half a minute that is known and half a minute that was never heard.
  'new-sound': [['In point', '30'], ['Out point', '90'], ['In point', '60'], ['Out point', '120'], ['In point', '90'], ['Out point', '150']],
}

/** Longest that is waited for. */
const PATIENCE_MS = 6000

export async function afterEdit({ page, memory }) {
  const recording = join(mkdtempSync(join(tmpdir(), 'brimble-bench-')), 'long.mp4')
  execFileSync('ffmpeg', ['-v', 'error', '-stream_loop', '9', '-i', join(root, 'public/demo/ridge-cup-stream.mp4'), '-c', 'copy', '-t', '155', recording])
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
    waits.sort((a, b) => a - b)
    const [medianMs, worstMs] = [waits[Math.floor(waits.length / 2)], waits.at(-1)]
    process.stdout.write(`  ${name}: up to date ${Math.round(medianMs)} ms after an edit (median of ${waits.length}), ${Math.round(worstMs)} ms at worst\n`)
    rows.push({ name: `after-edit, ${name}`, seconds: medianMs / 1000, referenceSeconds: NaN, medianMs, worstMs, ...(await memory.peak()) })
  }
  return rows
}

/** Changes a number of the first passage; ms from the key that does so until what is found has been out of date and is so no more. */
async function edited(page, [label, value]) {
  await page.getByRole('button', { name: 'Numbers of passage 1' }).click()
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

/** Runs in the page: `freshAt` is when what is found was up to date again for the last time. */
function watchStaleness() {
  let was = null
  const look = () => {
    const is = document.querySelector('[data-stale]')?.getAttribute('data-stale')
    if (was === 'true' && is === 'false') window.freshAt = performance.now()
    was = is
    requestAnimationFrame(look)
  }
  look()
}
