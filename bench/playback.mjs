// Playing and scrubbing the demo stream with three shapes on screen: pictures a second, and how soon a new place is
// shown.
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { countPictures } from './dragRegion.mjs'

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
  const [median, worst] = [waits[Math.floor(waits.length / 2)], waits.at(-1)]
  process.stdout.write(
    `  playing: Frame and 3 shapes drawn ${(played / seconds).toFixed(1)} times a second (the strip says: ${said.replaceAll('\n', ' ')}); scrubbing by a second: answered in ${median.toFixed(0)} ms (median), ${worst.toFixed(0)} ms at worst\n`,
  )
  return [
    {
      name: 'playback',
      seconds,
      referenceSeconds: seconds,
      picturesPerSecond: played / seconds,
      scrubMedianMs: median,
      scrubWorstMs: worst,
      ...(await memory.peak()),
    },
  ]
}
