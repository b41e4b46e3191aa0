// What the browser's encoders make of the same pictures with different settings: how long they take, how much they
// write, and how like it is (ffmpeg's SSIM). What files are coded with (src/media/render/encoders.ts) is chosen on
// this.
import { spawnSync } from 'node:child_process'
import { createReadStream, existsSync, mkdtempSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { makeSource } from './engine.mjs'
import { ffmpeg, made, median, processorSeconds } from './measure.mjs'

const ROUNDS = Number(process.env.ROUNDS ?? 3)
const SIZE = { width: 1080, height: 1920 }
const FRAMES = 90
const FPS = 30
const BITRATE = 8_000_000

/** `quantizer`: a quality that is held instead of the bitrate. */
const SETTINGS = [
  { name: 'H.264, for quality, variable', codec: 'avc1.64002a' },
  { name: 'H.264, for quality, constant', codec: 'avc1.64002a', bitrateMode: 'constant' },
  { name: 'H.264, in real time, variable', codec: 'avc1.64002a', latencyMode: 'realtime' },
  { name: 'H.264, in real time, constant', codec: 'avc1.64002a', latencyMode: 'realtime', bitrateMode: 'constant' },
  { name: 'H.264, as of moving pictures', codec: 'avc1.64002a', contentHint: 'motion' },
  { name: 'H.264, Main', codec: 'avc1.4d002a' },
  { name: 'H.264, Baseline', codec: 'avc1.42002a' },
  { name: 'VP9, for quality, held at 36', codec: 'vp09.00.41.08', quantizer: 36 },
  { name: 'VP9, in real time, held at 36', codec: 'vp09.00.41.08', quantizer: 36, latencyMode: 'realtime' },
  { name: 'VP9, for quality, variable', codec: 'vp09.00.41.08' },
  { name: 'AV1, for quality, held at 37', codec: 'av01.0.09M.08', quantizer: 37 },
  { name: 'AV1, in real time, held at 37', codec: 'av01.0.09M.08', quantizer: 37, latencyMode: 'realtime' },
]

/** Two bands of the demo stream as planes, without loss. */
function makePictures() {
  const file = made('encoders.yuv')
  if (existsSync(file)) return file
  const crop = (at, to) => `crop=${at},scale=${to}`
  ffmpeg([
    '-ss',
    '12',
    '-t',
    String(FRAMES / FPS),
    '-i',
    join(root, 'public/demo/ridge-cup-stream.mp4'),
    '-filter_complex',
    `[0:v]fps=${FPS},split[a][b];[a]${crop('480:270:1400:756', '1080:608')}[t];[b]${crop('840:1020:460:30', '1080:1312')}[u];[t][u]vstack`,
    '-frames:v',
    String(FRAMES),
    '-pix_fmt',
    'yuv420p',
    '-f',
    'rawvideo',
    file,
  ])
  return file
}

/**
 * An empty page and `files` by their paths in it, from a server of their own: nothing that large goes through the
 * browser's remote control.
 */
async function serve(files) {
  const server = createServer(({ url }, answer) => {
    const file = files[url]
    if (!file) return answer.writeHead(200, { 'content-type': 'text/html' }).end('<!doctype html>')
    answer.writeHead(200, { 'content-type': 'application/octet-stream', 'content-length': statSync(file).size })
    createReadStream(file).pipe(answer)
  })
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve))
  return { url: `http://127.0.0.1:${server.address().port}/`, close: () => server.close() }
}

/**
 * Three shapes' encoders beside each other, and one after the other: what making files in one go can save at best of
 * all that is not shared.
 */
async function besideEachOther(page, memory) {
  const heights = [1920, 1350, 1080]
  const [together, apart, busy] = [[], [], []]
  for (let round = 0; round < ROUNDS; round++) {
    const before = processorSeconds()
    const jobs = heights.map((height) => ({
      ...SIZE,
      pictureHeight: SIZE.height,
      height,
      frames: FRAMES,
      fps: FPS,
      bitrate: BITRATE,
      settings: { codec: 'avc1.64002a' },
    }))
    together.push(
      await page.evaluate(
        `Promise.all(${JSON.stringify(jobs)}.map(${encodeAll})).then((all) => Math.max(...all.map((one) => one.seconds)))`,
      ),
    )
    busy.push(processorSeconds() - before)
    let sum = 0
    for (const job of jobs) sum += (await page.evaluate(encodeAll, job)).seconds
    apart.push(sum)
  }
  process.stdout.write(
    `  three shapes beside each other ${median(together).toFixed(2)} s (processors busy ${median(busy).toFixed(2)} s), one after the other ${median(apart).toFixed(2)} s\n`,
  )
  return {
    name: 'encoders, three shapes',
    seconds: median(together),
    referenceSeconds: median(apart),
    ...(await memory.peak()),
  }
}

/** The stream that three shapes are made from, decoded by itself. */
async function decoding(page, memory) {
  const [took, busy] = [[], []]
  for (let round = 0; round < ROUNDS; round++) {
    const before = processorSeconds()
    took.push(await page.evaluate(decodeAll))
    busy.push(processorSeconds() - before)
  }
  process.stdout.write(
    `  ten seconds of 1080p60 decoded ${median(took).toFixed(2)} s (processors busy ${median(busy).toFixed(2)} s)\n`,
  )
  return { name: 'decoder, 1080p60', seconds: median(took), referenceSeconds: NaN, ...(await memory.peak()) }
}

/** The pictures of `recording` as H.264 with start codes and a delimiter before each. */
function makeStream(recording) {
  const file = made('encoders.h264')
  if (!existsSync(file))
    ffmpeg([
      '-i',
      recording,
      '-an',
      '-c',
      'copy',
      '-bsf:v',
      'h264_mp4toannexb,h264_metadata=aud=insert',
      '-f',
      'h264',
      file,
    ])
  return file
}

export async function encoders({ page, memory }) {
  const pictures = makePictures()
  const { url, close } = await serve({ '/pictures': pictures, '/stream': makeStream(makeSource('1080p60')) })
  const dir = mkdtempSync(join(tmpdir(), 'brimble-encoders-'))
  const rows = []
  try {
    await page.goto(url)
    await page.evaluate(async () => void (window.pictures = await (await fetch('/pictures')).arrayBuffer()))
    rows.push(await decoding(page, memory), await besideEachOther(page, memory))
    const took = new Map(SETTINGS.map(({ name }) => [name, []]))
    for (let round = 0; round < ROUNDS; round++)
      for (const settings of SETTINGS) {
        const made = await page.evaluate(encodeAll, {
          ...SIZE,
          pictureHeight: SIZE.height,
          frames: FRAMES,
          fps: FPS,
          bitrate: BITRATE,
          settings: withoutName(settings),
        })
        if (!made) continue
        took.get(settings.name).push(made.seconds)
        if (round === 0) writeFileSync(join(dir, `${settings.name}.bin`), Buffer.from(made.base64, 'base64'))
      }
    for (const { name, codec } of SETTINGS) {
      const times = took.get(name)
      if (times.length === 0) {
        process.stdout.write(`  ${name}: not here\n`)
        continue
      }
      const coded = join(dir, `${name}.bin`)
      const file = join(dir, `${name}${codec.startsWith('avc') ? '.h264' : '.ivf'}`)
      renameSync(coded, file)
      const seconds = median(times)
      const megabits = (statSync(file).size * 8) / (FRAMES / FPS) / 1e6
      const ssim = likeness(file, pictures)
      process.stdout.write(
        `  ${name}: ${seconds.toFixed(2)} s for ${FRAMES} frames, ${megabits.toFixed(1)} Mbit/s, SSIM ${ssim.toFixed(4)}\n`,
      )
      rows.push({ name: `encoders, ${name}`, seconds, referenceSeconds: NaN, megabits, ssim, ...(await memory.peak()) })
    }
  } finally {
    close()
    rmSync(dir, { recursive: true, force: true })
  }
  return rows
}

/** A name is no setting. */
const withoutName = (settings) => Object.fromEntries(Object.entries(settings).filter(([key]) => key !== 'name'))

function likeness(file, pictures) {
  const { stderr } = spawnSync(
    'ffmpeg',
    [
      '-v',
      'info',
      '-i',
      file,
      '-f',
      'rawvideo',
      '-pix_fmt',
      'yuv420p',
      '-s',
      `${SIZE.width}x${SIZE.height}`,
      '-r',
      String(FPS),
      '-i',
      pictures,
      '-lavfi',
      `[0:v]setpts=N/${FPS}/TB[a];[1:v]setpts=N/${FPS}/TB[b];[a][b]ssim`,
      '-f',
      'null',
      '-',
    ],
    { encoding: 'utf8', maxBuffer: 1 << 26 },
  )
  return Number(/All:([\d.]+)/.exec(stderr)?.[1])
}

/**
 * Runs in the page: decodes the stream but for every other picture that no other needs, as a render at half its rate
 * does; how long it took.
 */
async function decodeAll() {
  const stream = new Uint8Array(await (await fetch('/stream')).arrayBuffer())
  const packets = [] // Of each: where it begins, whether it is a key frame, whether another needs it.
  for (let i = 0; i + 3 < stream.length; i++) {
    if (stream[i] !== 0 || stream[i + 1] !== 0 || stream[i + 2] !== 1) continue
    const [type, needed] = [stream[i + 3] & 31, (stream[i + 3] & 96) !== 0]
    if (type === 9) packets.push({ from: i, key: false, needed: false })
    else if (type === 1 || type === 5) Object.assign(packets.at(-1), { key: type === 5, needed })
  }
  let failed = null
  const decoder = new VideoDecoder({ output: (frame) => frame.close(), error: (error) => (failed = error) })
  decoder.configure({ codec: 'avc1.64002a' })
  const started = performance.now()
  for (const [n, { from, key, needed }] of packets.entries()) {
    if (!needed && n % 2 === 1) continue
    while (decoder.decodeQueueSize > 6)
      await new Promise((resolve) => decoder.addEventListener('dequeue', resolve, { once: true }))
    decoder.decode(
      new EncodedVideoChunk({
        type: key ? 'key' : 'delta',
        timestamp: Math.round((n * 1e6) / 60),
        data: stream.subarray(from, packets[n + 1]?.from),
      }),
    )
  }
  await decoder.flush()
  decoder.close()
  if (failed) throw failed
  return (performance.now() - started) / 1000
}

/**
 * Runs in the page: codes all pictures, of each the upper `height` rows; how long it took, and what came out (H.264
 * with start codes, others as IVF). Null when this browser cannot.
 */
async function encodeAll({ width, height, pictureHeight, frames, fps, bitrate, settings: { quantizer, ...settings } }) {
  const avc = settings.codec.startsWith('avc')
  const config = {
    width,
    height,
    framerate: fps,
    ...(quantizer === undefined ? { bitrate } : { bitrateMode: 'quantizer' }),
    ...settings,
    ...(avc && { avc: { format: 'annexb' } }),
  }
  const { supported } = await VideoEncoder.isConfigSupported(config).catch(() => ({ supported: false }))
  if (!supported) return null
  const chunks = []
  let failed = null
  const encoder = new VideoEncoder({
    output: (chunk) => {
      const data = new Uint8Array(chunk.byteLength)
      chunk.copyTo(data)
      chunks.push(data)
    },
    error: (error) => (failed = error),
  })
  encoder.configure(config)
  const size = (width * pictureHeight * 3) / 2
  const colorSpace = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false }
  const held = [
    ['avc', 'avc'],
    ['vp09', 'vp9'],
    ['av01', 'av1'],
  ].find(([begin]) => settings.codec.startsWith(begin))[1]
  const started = performance.now()
  for (let n = 0; n < frames && !failed; n++) {
    while (encoder.encodeQueueSize >= 4)
      await new Promise((resolve) => encoder.addEventListener('dequeue', resolve, { once: true }))
    const frame = new VideoFrame(new Uint8Array(window.pictures, n * size, size), {
      format: 'I420',
      codedWidth: width,
      codedHeight: pictureHeight,
      visibleRect: { x: 0, y: 0, width, height },
      timestamp: Math.round((n * 1e6) / fps),
      duration: Math.round(1e6 / fps),
      colorSpace,
    })
    encoder.encode(frame, { keyFrame: n % (2 * fps) === 0, ...(quantizer !== undefined && { [held]: { quantizer } }) })
    frame.close()
  }
  await encoder.flush().catch((error) => (failed = error))
  const seconds = (performance.now() - started) / 1000
  if (encoder.state !== 'closed') encoder.close()
  if (failed) return null
  const parts = avc ? chunks : [ivfHead(), ...chunks.flatMap((data, n) => [ivfFrame(data.length, n), data])]
  const blob = new Blob(parts)
  const base64 = await new Promise((resolve) => {
    const reader = new FileReader()
    reader.onload = () => resolve(reader.result.split(',')[1])
    reader.readAsDataURL(blob)
  })
  return { seconds, base64 }

  function ivfHead() {
    const head = new DataView(new ArrayBuffer(32))
    const letters = (at, text) => [...text].forEach((c, i) => head.setUint8(at + i, c.charCodeAt(0)))
    letters(0, 'DKIF')
    head.setUint16(6, 32, true)
    letters(8, held === 'vp9' ? 'VP90' : 'AV01')
    head.setUint16(12, width, true)
    head.setUint16(14, height, true)
    head.setUint32(16, fps, true)
    head.setUint32(20, 1, true)
    head.setUint32(24, frames, true)
    return head.buffer
  }

  function ivfFrame(length, n) {
    const head = new DataView(new ArrayBuffer(12))
    head.setUint32(0, length, true)
    head.setUint32(4, n, true)
    return head.buffer
  }
}
