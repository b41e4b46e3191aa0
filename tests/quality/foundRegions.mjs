// Cameras over games, calls, and footage without either: how many of the proposals lie where the pictures are, and
// how many where there is none?
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { core } from './core.mjs'
import { makeFaceFootage } from './faceFootage.mjs'
import { foundInFiles } from './foundInFiles.mjs'
import { callScene, gameScene, seeded } from './scenes.mjs'

/** Frames that are looked at, as Brimble samples them: far apart. */
const FRAMES = 16
const SIZES = [
  { width: 1280, height: 720 },
  { width: 1920, height: 1080 },
  { width: 2560, height: 1440 },
]
const PLACES = ['nw', 'ne', 'sw', 'se', 'n', 'e', 's', 'w']
/** Distance that counts as right, px at 1080p. */
const TOLERANCE = 4
const BAR = 0.9

/** Codes frames as a recorder would and gives back what a player sees: grey, `[height][width]` each. */
export function coded({ width, height, frame }, frames = FRAMES) {
  const raw = Buffer.concat(Array.from({ length: frames }, (_, n) => frame(n)))
  const ffmpeg = (args, input) => {
    const { status, stdout, stderr } = spawnSync('ffmpeg', ['-v', 'error', ...args], { input, maxBuffer: 1 << 30 })
    if (status !== 0) throw new Error(String(stderr))
    return stdout
  }
  const video = ffmpeg(
    [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gray',
      '-video_size',
      `${width}x${height}`,
      '-framerate',
      '2',
      '-i',
      '-',
      '-vf',
      'format=yuv420p',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '27',
      '-g',
      '1',
      '-f',
      'h264',
      '-',
    ],
    raw,
  )
  const decoded = ffmpeg(['-f', 'h264', '-i', '-', '-f', 'rawvideo', '-pix_fmt', 'gray', '-'], video)
  return Array.from({ length: frames }, (_, n) => decoded.subarray(n * width * height, (n + 1) * width * height))
}

export function cases(seed) {
  const random = seeded(seed)
  const all = []
  let n = 0
  const add = (group, size, name, make) => {
    const own = seed + n++
    all.push({ group, size, name, scene: () => make(own) })
  }
  for (const size of SIZES) {
    for (const place of PLACES)
      for (const share of [0.12, 0.2, 0.28, 0.35]) {
        const border = random.pick([0, 0, 2, 4, 6])
        const inset = random.pick([0, 0.02, 0.04])
        add(
          border ? 'camera with border' : 'camera without border',
          size,
          `${place} ${share} border ${border}`,
          (own) => gameScene(own, size, { place, share, border, inset }),
        )
      }
    for (const people of [2, 3, 4, 6, 9])
      for (const gutter of [0, 8, 24]) {
        const background = random.pick([16, 32, 45])
        const names = random.next() < 0.5
        add(
          'call',
          size,
          `${people} people, gutter ${gutter}${names ? ', names' : ''}, background ${background}`,
          (own) => callScene(own, size, { people, gutter, background, names }),
        )
      }
    for (let k = 0; k < 4; k++)
      add('nothing to find', size, `game ${k}`, (own) =>
        gameScene(own, size, { place: 'se', share: 0.2, border: 0, withCamera: false }),
      )
  }
  return all
}

const off = (a, b) =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.x + a.width - b.x - b.width),
    Math.abs(a.y + a.height - b.y - b.height),
  )

/** Whether everything that is there was proposed where it is, and nothing else of the same kind. */
function judge({ truth, height }, proposals) {
  const scale = 1080 / height
  const wanted = proposals.filter((p) => p.role === 'face' || p.role === 'speaker')
  const misses = truth.map((t) =>
    Math.min(...wanted.filter((p) => p.role === t.role).map((p) => off(p.rect, t.rect) * scale), Infinity),
  )
  return {
    right: misses.every((m) => m <= TOLERANCE) && wanted.length === truth.length,
    worst: misses.length > 0 ? Math.max(...misses) : 0,
    extra: wanted.length - truth.length,
  }
}

export async function foundRegions(
  page,
  { seed = Number(process.env.SEED ?? 20261125), log = process.env.VERBOSE, only = process.env.ONLY, files } = {},
) {
  if (files) return foundInFiles(page, files, log)
  const { FrameWatcher } = await core('detect/regions/frameWatcher')
  const { proposeRegions } = await core('detect/regions/propose')
  const { structureOf } = await core('detect/regions/structure')
  const groups = new Map()
  for (const { group, size, name, scene } of cases(seed)) {
    if (only && !`${group}, ${size.height}p, ${name}`.includes(only)) continue
    const made = scene()
    const watcher = new FrameWatcher(size)
    for (const luma of coded(made)) watcher.add(luma)
    const started = performance.now()
    const proposals = proposeRegions(structureOf(watcher.seen()), null)
    const verdict = judge(made, proposals)
    const tally = groups.get(group) ?? { right: 0, of: 0 }
    groups.set(group, { right: tally.right + (verdict.right ? 1 : 0), of: tally.of + 1 })
    if (log && (!verdict.right || log === 'all'))
      process.stderr.write(
        `${verdict.right ? 'right' : 'WRONG'} ${group}, ${size.height}p, ${name}: off ${verdict.worst.toFixed(1)}, extra ${verdict.extra}, ${Math.round(performance.now() - started)} ms; wanted ${made.truth.map((t) => Object.values(t.rect).join(' ')).join(' | ')}; got ${proposals.map((p) => `${p.role} ${Object.values(p.rect).join(' ')} ${p.confidence.toFixed(2)}`).join(' | ')}\n`,
      )
  }
  const drawn = [...groups].map(([group, { right, of }]) => {
    const bar = group === 'nothing to find' ? 1 : BAR
    return { figure: right / of, unit: `of ${of} right, ${group}`, bar, met: right / of >= bar }
  })
  return [...drawn, ...(await foundInFootage(page, log))]
}

/** Footage of other makes with people in it, looked at by the interface. */
async function foundInFootage(page, log) {
  const folder = mkdtempSync(join(tmpdir(), 'brimble-footage-'))
  const easel = await page.context().newPage()
  try {
    await makeFaceFootage(easel, folder, [1])
    return await foundInFiles(page, folder, log)
  } finally {
    await easel.close()
    rmSync(folder, { recursive: true })
  }
}
