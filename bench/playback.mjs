// Playing and scrubbing the demo stream with three shapes on screen: pictures a second, and how soon a new place is
// shown.
import { aloneAndBeside, openThreeShapes } from './livePicture.mjs'

const SECONDS = 8
const SCRUBS = 24

export async function playback({ page, memory }) {
  await openThreeShapes(page, memory)
  return aloneAndBeside(
    'playback',
    () => playAndScrub(page),
    (f) =>
      `Frame and 3 shapes drawn ${f.picturesPerSecond.toFixed(1)} times a second; scrubbing by a second: answered in ${f.scrubMedianMs.toFixed(0)} ms (median), ${f.scrubWorstMs.toFixed(0)} ms at worst`,
    memory,
  )
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
    scrubMedianMs: waits[Math.floor(waits.length / 2)],
    scrubWorstMs: waits.at(-1),
  }
}
