// A minute of 1080p60 checked for regions, through the interface, beside ffmpeg decoding the same key frames.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { ffmpeg, made } from './measure.mjs'

export async function findRegions({ page, memory }) {
  const minute = made('stream-minute.mp4')
  if (!existsSync(minute))
    ffmpeg([
      '-stream_loop',
      '1',
      '-i',
      join(root, 'public/demo/ridge-cup-stream.mp4'),
      '-t',
      '60',
      '-c',
      'copy',
      minute,
    ])
  const started = performance.now()
  ffmpeg(['-skip_frame', 'nokey', '-i', minute, '-an', '-f', 'null', '-'])
  const referenceSeconds = (performance.now() - started) / 1000
  await addToShelf(page, minute)
  await page.getByRole('button', { name: /^Cut a highlight from stream-minute/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  // It looks for them by itself first.
  await page.getByRole('button', { name: 'Look again' }).waitFor()
  await page.waitForTimeout(2000)
  await memory.peak()
  await page.evaluate(() => {
    window.longest = 0
    new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration))),
    ).observe({ type: 'longtask' })
  })
  const asked = performance.now()
  await page.getByRole('button', { name: 'Look again' }).click()
  await page.getByRole('progressbar', { name: 'Analysed' }).waitFor()
  await page.getByRole('button', { name: 'Look again' }).waitFor()
  const seconds = (performance.now() - asked) / 1000
  const longest = await page.evaluate(() => window.longest)
  process.stdout.write(`  longest task on the main thread meanwhile: ${Math.round(longest)} ms\n`)
  return [{ name: 'find-regions', seconds, referenceSeconds, longestTaskMs: longest, ...(await memory.peak()) }]
}
