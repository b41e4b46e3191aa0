// Playing and scrubbing the demo stream with three shapes on screen: pictures a second, and how soon a new place is
// shown.
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { countPictures } from './dragRegion.mjs'
import { besideABusyCore, yardstick } from './measure.mjs'

const SECONDS = 8
const SCRUBS = 24

export async function playback({ page, memory }) {
  await countPictures(page)
  await addToShelf(page, join(root, 'public/demo/ridge-cup-stream.mp4'))
  await page.getByRole('button', { name: /^Cut a highlight from ridge-cup/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  await page.getByRole('group', { name: /^Face: / }).press('ArrowLeft')
  await page.getByRole('note', { name: 'Presence in Face' }).waitFor({ timeout: 120_000 })
  await page.keyboard.press('Escape')
  await page.waitForTimeout(2000)
  await memory.peak()
  const rows = []
  for (const beside of [false, true]) {
    const measured = () => playAndScrub(page)
    const { seconds, ...figures } = await (beside ? besideABusyCore(measured) : measured())
    const name = beside ? 'playback, one core busy' : 'playback'
    process.stdout.write(
      `  ${name}: Frame and 3 shapes drawn ${figures.picturesPerSecond.toFixed(1)} times a second (the strip says: ${figures.said}); scrubbing by a second: answered in ${figures.scrubMedianMs.toFixed(0)} ms (median), ${figures.scrubWorstMs.toFixed(0)} ms at worst; yardstick ${yardstick().toFixed(1)} s\n`,
    )
    rows.push({ name, seconds, referenceSeconds: seconds, ...figures, ...(await memory.peak()) })
  }
  return rows
}

async function playAndScrub(page) {
  await page.keyboard.press('Home')
  await page.keyboard.press('Space')
  await page.waitForTimeout(2000)
  const before = await page.evaluate(() => window.pictures)
  const started = performance.now()
  await page.waitForTimeout(SECONDS * 1000)
  const played = (await page.evaluate(() => window.pictures)) - before
  const seconds = (performance.now() - started) / 1000
  const said = await page
    .getByText(/fps/)
    .first()
    .innerText()
    .catch(() => 'nothing')
  await page.keyboard.press('k')
  await page.keyboard.press('Home')
  await page.waitForTimeout(1000)
  // The region that was touched has the focus still, and arrows would move it.
  await page.evaluate(() => document.activeElement?.blur())
  // A seek is answered when the next picture has been drawn: at the place itself, or on the way to it.
  const waits = []
  for (let n = 0; n < SCRUBS; n++) {
    await page.keyboard.press(n % 6 === 5 ? 'Shift+ArrowLeft' : 'Shift+ArrowRight')
    await page.waitForFunction(() => window.answeredAt > 0, null, { polling: 'raf' })
    waits.push(await page.evaluate(() => window.answeredAt - window.askedAt))
    await page.waitForTimeout(150)
  }
  waits.sort((a, b) => a - b)
  return {
    seconds,
    picturesPerSecond: played / seconds,
    said: said.replaceAll('\n', ' '),
    scrubMedianMs: waits[Math.floor(waits.length / 2)],
    scrubWorstMs: waits.at(-1),
  }
}
