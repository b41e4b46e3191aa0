// The main row: ten seconds of 1080p60 to 1080 × 1920 at 30 fps with two bands, rendered through the interface,
// beside ffmpeg's same job.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { ffmpeg, made, median } from './measure.mjs'

const ROUNDS = Number(process.env.ROUNDS ?? 3)
const FACE = { x: 1400, y: 756, width: 480, height: 270 }
const GAME = { x: 460, y: 30, width: 840, height: 1020 }
const SECONDS = 10

/** Ten seconds out of the middle of the demo stream, coded as a recorder does (8 Mbit/s, a key frame every 2 s). */
function makeSource(file) {
  if (existsSync(file)) return
  ffmpeg([
    '-ss',
    '12',
    '-t',
    String(SECONDS),
    '-i',
    join(root, 'public/demo/ridge-cup-stream.mp4'),
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-b:v',
    '8M',
    '-g',
    '120',
    '-pix_fmt',
    'yuv420p',
    '-colorspace',
    'bt709',
    '-color_primaries',
    'bt709',
    '-color_trc',
    'bt709',
    '-c:a',
    'aac',
    '-b:a',
    '160k',
    file,
  ])
}

function ffmpegSeconds(source, out) {
  const crop = (r, to) => `crop=${r.width}:${r.height}:${r.x}:${r.y},scale=${to}`
  const started = performance.now()
  ffmpeg([
    '-i',
    source,
    '-filter_complex',
    `[0:v]fps=30,split[a][b];[a]${crop(FACE, '1080:608')}[t];[b]${crop(GAME, '1080:1312')}[u];[t][u]vstack`,
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-b:v',
    '8M',
    '-c:a',
    'aac',
    '-b:a',
    '160k',
    out,
  ])
  return (performance.now() - started) / 1000
}

async function setUp(page, source) {
  await addToShelf(page, source)
  await page.getByRole('button', { name: 'Cut a highlight from standard' }).click()
  for (const [name, rect] of [
    ['Face', FACE],
    ['Game', GAME],
    ['Face', FACE],
    ['Game', GAME],
  ])
    for (const [key, value] of Object.entries({ left: rect.x, top: rect.y, width: rect.width, height: rect.height })) {
      const field = page.getByLabel(`${name} ${key}`, { exact: true })
      await field.fill(String(value))
      await field.press('Enter')
    }
  return page.url()
}

/**
 * Renders once through the interface; returns the wall time that the Outbox gives, from the first frame to the whole
 * file.
 */
async function renderSeconds(page, bench) {
  await page.goto(bench)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  await dialog.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state]').first()
  await page.waitForFunction(
    () =>
      ['finished', 'failed'].includes(document.querySelector('article[data-state]')?.getAttribute('data-state') ?? ''),
    null,
    { timeout: 300_000 },
  )
  const text = await row.innerText()
  const seconds = Number(/frames in ([\d.]+) s/.exec(text)?.[1])
  if (!(seconds > 0)) throw new Error(`the render did not finish: ${text}`)
  await row.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Move to the bin' }).click()
  await row.waitFor({ state: 'detached' })
  return seconds
}

export async function standard({ page, memory }) {
  const source = made('standard.mp4')
  makeSource(source)
  const bench = await setUp(page, source)
  const ours = []
  const theirs = []
  for (let round = 0; round < ROUNDS; round++) {
    theirs.push(ffmpegSeconds(source, made('standard-ffmpeg.mp4')))
    ours.push(await renderSeconds(page, bench))
    process.stdout.write(
      `  round ${round + 1}: Brimble ${ours.at(-1).toFixed(2)} s, ffmpeg ${theirs.at(-1).toFixed(2)} s\n`,
    )
  }
  return [{ name: 'standard', seconds: median(ours), referenceSeconds: median(theirs), ...(await memory.peak()) }]
}
