// Looking along a highlight of 1080p60 in which somebody is seen: seconds of looking for each second of highlight,
// beside ffmpeg decoding the same seconds with one thread.
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { ffmpeg } from './measure.mjs'

const BAR = 0.25
const STREAM = join(root, 'public/demo/ridge-cup-stream.mp4')
const HIGHLIGHT_SECONDS = 40

export async function along({ page, memory }) {
  const started = performance.now()
  ffmpeg(['-threads', '1', '-i', STREAM, '-an', '-f', 'null', '-'])
  const referenceSeconds = (performance.now() - started) / 1000
  // When the first and the last word of it were on the page, ms.
  await page.addInitScript(() => {
    const isLooking = () => /checking regions: \d/.test(document.body?.textContent ?? '')
    new MutationObserver(() => {
      const looks = isLooking()
      if (looks && !window.looks) window.begunAt = performance.now()
      if (!looks && window.looks) window.endedAt = performance.now()
      window.looks = looks
    }).observe(document, { childList: true, subtree: true, characterData: true })
  })
  await addToShelf(page, STREAM)
  await page.getByRole('button', { name: /^Cut a highlight from ridge-cup-stream/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  await page.getByText(/of the time the face is inside/).waitFor({ timeout: 180_000 })
  const seconds = await page.evaluate(() => (window.endedAt - window.begunAt) / 1000)
  const share = seconds / HIGHLIGHT_SECONDS
  process.stdout.write(
    `  ${share.toFixed(2)} s of looking for a second of highlight, bar ${BAR}: ${share <= BAR ? 'met' : 'missed'}\n`,
  )
  return [{ name: 'along', seconds, referenceSeconds, ...(await memory.peak()) }]
}
