// An hour of 1080p30 analysed, and two hours opened: each beside ffmpeg decoding what Brimble decodes.
import { existsSync } from 'node:fs'
import { addToShelf } from '../scripts/headless.mjs'
import { ffmpeg, made } from './measure.mjs'

/**
 * A minute of the demo stream and of talk, coded as a recorder does (a key frame every 2 s), over and over without
 * coding it again.
 */
function makeHours(name, hours) {
  const minute = made('talk-minute.mp4')
  const stream = 'public/demo/ridge-cup-stream.mp4'
  const call = 'public/demo/open-day-call.mp4'
  const shape = 'scale=1920:1080:force_original_aspect_ratio=decrease,pad=1920:1080:-1:-1,fps=30,setsar=1'
  if (!existsSync(minute))
    ffmpeg([
      '-i',
      stream,
      '-i',
      call,
      '-filter_complex',
      `[0:v]${shape}[a];[1:v]trim=0:20,${shape}[b];[0:a]aresample=48000[c];[1:a]atrim=0:20,aresample=48000[d];[a][c][b][d]concat=n=2:v=1:a=1[v][s]`,
      '-map',
      '[v]',
      '-map',
      '[s]',
      '-t',
      '60',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-b:v',
      '1M',
      '-maxrate',
      '1.2M',
      '-bufsize',
      '2M',
      '-g',
      '60',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      '-ar',
      '48000',
      '-ac',
      '2',
      minute,
    ])
  const out = made(name)
  if (!existsSync(out))
    ffmpeg(['-stream_loop', String(hours * 60 - 1), '-i', minute, '-c', 'copy', '-movflags', '+faststart', out])
  return out
}

function secondsOf(args) {
  const started = performance.now()
  ffmpeg(args)
  return (performance.now() - started) / 1000
}

/** How many parts of a recording have been listened to and looked at, as the store has them. */
function partsFound(page) {
  return page.evaluate(
    () =>
      new Promise((resolve) => {
        const open = indexedDB.open('brimble')
        open.onsuccess = () => {
          const keys = open.result.transaction('analyses').objectStore('analyses').getAllKeys()
          keys.onsuccess = () => {
            open.result.close()
            resolve({
              sound: keys.result.filter((k) => k[1] === 'sound').length,
              pictures: keys.result.filter((k) => k[1] === 'pictures').length,
            })
          }
        }
      }),
  )
}

export async function analysis({ page, memory }) {
  const hour = makeHours('talk-hour.mp4', 1)
  // What is decoded: all of the sound; of the picture, key frames alone.
  const soundReference = secondsOf(['-i', hour, '-vn', '-f', 'null', '-'])
  const pictureReference = secondsOf([
    '-skip_frame',
    'nokey',
    '-i',
    hour,
    '-an',
    '-vf',
    'scale=64:36',
    '-f',
    'null',
    '-',
  ])
  await addToShelf(page, hour)
  await page.getByRole('link', { name: /^Find moments in talk-hour/ }).click()
  const started = performance.now()
  await page.evaluate(() => {
    window.longest = 0
    new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration))),
    ).observe({ type: 'longtask' })
  })
  let soundSeconds = 0
  for (;;) {
    await page.waitForTimeout(500)
    const { sound, pictures } = await partsFound(page)
    if (sound >= 60 && soundSeconds === 0 && (sound > 60 || pictures > 0))
      soundSeconds = (performance.now() - started) / 1000
    // A hand at work meanwhile: zooming and panning.
    await page.getByTestId('stretch-band').hover()
    await page.mouse.wheel(0, pictures % 2 === 0 ? -120 : 120)
    if ((await page.getByRole('status').count()) === 0 && pictures >= 60) break
  }
  const seconds = (performance.now() - started) / 1000
  const longest = await page.evaluate(() => window.longest)
  process.stdout.write(`  longest task on the main thread meanwhile: ${Math.round(longest)} ms\n`)
  const peak = await memory.peak()
  return [
    { name: 'hour-sound', seconds: soundSeconds, referenceSeconds: soundReference, ...peak },
    { name: 'hour-all', seconds, referenceSeconds: soundReference + pictureReference, ...peak, longestTaskMs: longest },
  ]
}

export async function firstPicture({ page, memory }) {
  const file = makeHours('talk-two-hours.mp4', 2)
  const reference = secondsOf(['-i', file, '-frames:v', '1', '-f', 'null', '-'])
  await addToShelf(page, file)
  await page.getByRole('button', { name: /^Cut a highlight from talk-two-hours/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  await page.waitForTimeout(10_000)
  // A fresh start: what a person has the next morning. On a blank page first, so that nothing of the last opening is
  // counted.
  const address = page.url()
  await page.goto('about:blank')
  await page.waitForTimeout(2000)
  await memory.peak()
  const started = performance.now()
  await page.goto(address)
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  while ((await page.getByTestId('shape-tall').screenshot()).length < 8000) await page.waitForTimeout(50)
  const seconds = (performance.now() - started) / 1000
  // Rows, levels and pictures of the panes are still being made.
  await page.waitForTimeout(5000)
  return [{ name: 'two-hours-first-picture', seconds, referenceSeconds: reference, ...(await memory.peak()) }]
}
