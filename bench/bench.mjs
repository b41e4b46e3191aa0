// `npm run bench`: speeds of the real application in headless Chromium, each beside ffmpeg doing the same job in the same run.
// Writes bench/results.json: [{ name, seconds, referenceSeconds, ratio, peakMemoryMb }]; see docs/performance.md.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { freePort, root } from '../scripts/commands.mjs'
import { ensureBuild, ensureModules, ensurePrograms } from '../scripts/prepare.mjs'

const ROUNDS = Number(process.env.ROUNDS ?? 3)
const CHROMIUM_ARGS = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync']

/** Two bands: the face 480 × 270 at 1400, 756 over the game 840 × 1020 at 460, 30; 10 s of 1080p60 to 1080 × 1920 at 30 fps. */
const FACE = { x: 1400, y: 756, width: 480, height: 270 }
const GAME = { x: 460, y: 30, width: 840, height: 1020 }
const SECONDS = 10

function ffmpeg(args) {
  const { status, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args])
  if (status !== 0) throw new Error(String(stderr))
}

/** The source: ten seconds out of the middle of the demo stream, coded as a recorder does (8 Mbit/s, a key frame every 2 s). */
function makeSource(file) {
  if (existsSync(file)) return
  ffmpeg(['-ss', '12', '-t', String(SECONDS), '-i', join(root, 'public/demo/ridge-cup-stream.mp4'), '-c:v', 'libx264', '-preset', 'veryfast', '-b:v', '8M', '-g', '120', '-pix_fmt', 'yuv420p', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-c:a', 'aac', '-b:a', '160k', file])
}

function ffmpegSeconds(source, out) {
  const crop = (r, to) => `crop=${r.width}:${r.height}:${r.x}:${r.y},scale=${to}`
  const started = performance.now()
  ffmpeg(['-i', source, '-filter_complex', `[0:v]fps=30,split[a][b];[a]${crop(FACE, '1080:608')}[t];[b]${crop(GAME, '1080:1312')}[u];[t][u]vstack`, '-c:v', 'libx264', '-preset', 'veryfast', '-b:v', '8M', '-c:a', 'aac', '-b:a', '160k', out])
  return (performance.now() - started) / 1000
}

/** Peak resident memory of a tab's process so far, MB. */
async function peakMemoryMb(browserSession) {
  const { processInfo } = await browserSession.send('SystemInfo.getProcessInfo')
  const peaks = processInfo.filter((p) => p.type === 'renderer').map((p) => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${p.id}/status`, 'utf8'))?.[1] ?? 0) / 1024)
  return Math.max(...peaks)
}

async function setUp(page, source) {
  await page.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))
  await page.goto('/')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add recordings' }).first().click()
  await (await chooser).setFiles([source])
  await page.getByRole('button', { name: 'Cut a highlight from standard' }).click()
  for (const [name, rect] of [['Face', FACE], ['Game', GAME], ['Face', FACE], ['Game', GAME]])
    for (const [key, value] of Object.entries({ left: rect.x, top: rect.y, width: rect.width, height: rect.height })) {
      const field = page.getByLabel(`${name} ${key}`, { exact: true })
      await field.fill(String(value))
      await field.press('Enter')
    }
  return page.url()
}

/** Renders once through the interface; returns the wall time that the Outbox gives, from the first frame to the whole file. */
async function renderSeconds(page, bench) {
  await page.goto(bench)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  await dialog.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state]').first()
  await page.waitForFunction(() => ['finished', 'failed'].includes(document.querySelector('article[data-state]')?.getAttribute('data-state') ?? ''), null, { timeout: 300_000 })
  const text = await row.innerText()
  const seconds = Number(/frames in ([\d.]+) s/.exec(text)?.[1])
  if (!(seconds > 0)) throw new Error(`the render did not finish: ${text}`)
  await row.getByRole('button', { name: 'Remove' }).click()
  await row.waitFor({ state: 'detached' })
  return seconds
}

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]

await ensureModules()
await ensurePrograms()
await ensureBuild()
const work = join(root, 'tests', '.made')
mkdirSync(work, { recursive: true })
const source = join(work, 'standard.mp4')
makeSource(source)
const port = await freePort(4790)
const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-p', String(port), '-H', 'localhost'], { cwd: root, stdio: 'ignore' })
const profile = mkdtempSync(join(tmpdir(), 'brimble-bench-'))
const context = await chromium.launchPersistentContext(profile, { executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS, baseURL: `http://localhost:${port}`, viewport: { width: 1280, height: 800 } })
try {
  const page = context.pages()[0] ?? (await context.newPage())
  for (let tries = 0; tries < 50 && !(await fetch(`http://localhost:${port}`).then((r) => r.ok, () => false)); tries++) await new Promise((r) => setTimeout(r, 200))
  const bench = await setUp(page, source)
  const browserSession = await context.browser()?.newBrowserCDPSession() ?? await context.newCDPSession(page)
  const ours = []
  const theirs = []
  for (let round = 0; round < ROUNDS; round++) {
    theirs.push(ffmpegSeconds(source, join(work, 'standard-ffmpeg.mp4')))
    ours.push(await renderSeconds(page, bench))
    process.stdout.write(`round ${round + 1}: Brimble ${ours.at(-1).toFixed(2)} s, ffmpeg ${theirs.at(-1).toFixed(2)} s\n`)
  }
  const seconds = median(ours)
  const referenceSeconds = median(theirs)
  const results = [{ name: 'standard', seconds, referenceSeconds, ratio: seconds / referenceSeconds, peakMemoryMb: await peakMemoryMb(browserSession) }]
  writeFileSync(join(root, 'bench', 'results.json'), `${JSON.stringify(results, null, 2)}\n`)
  for (const r of results) process.stdout.write(`${r.name}: ${r.seconds.toFixed(2)} s, ffmpeg ${r.referenceSeconds.toFixed(2)} s, ratio ${r.ratio.toFixed(2)}, peak memory ${r.peakMemoryMb.toFixed(0)} MB\n`)
} finally {
  await context.close()
  server.kill()
  rmSync(profile, { recursive: true, force: true })
}
