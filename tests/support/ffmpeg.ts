import { spawnSync } from 'node:child_process'

/** Runs a program with its output as a buffer, and `input` as what it reads; throws with its messages when it fails. */
export function run(program: string, args: readonly string[], input?: Uint8Array): Buffer {
  const { status, stdout, stderr, error } = spawnSync(program, args, { maxBuffer: 1 << 30, ...(input && { input }) })
  if (error) throw error
  if (status !== 0) throw new Error(`${program} ${args.join(' ')}\n${stderr.toString()}`)
  return stdout
}

export function ffmpeg(...args: string[]): void {
  run('ffmpeg', ['-v', 'error', '-y', ...args])
}

interface ProbedStream {
  codec_type: string
  codec_name: string
  profile?: string
  width?: number
  height?: number
  r_frame_rate?: string
  sample_rate?: string
  channels?: number
  nb_read_frames?: string
  pix_fmt?: string
  color_range?: string
  color_space?: string
  color_transfer?: string
  color_primaries?: string
  start_time?: string
  duration?: string
}

export interface Probed {
  streams: ProbedStream[]
  format: { duration: string; format_name: string }
  video: ProbedStream
  audio: ProbedStream | undefined
}

/** What ffprobe says of a file, with its frames counted by decoding them. */
export function ffprobe(file: string): Probed {
  const found = JSON.parse(
    run('ffprobe', ['-v', 'error', '-count_frames', '-show_streams', '-show_format', '-of', 'json', file]).toString(),
  ) as Omit<Probed, 'video' | 'audio'>
  const video = found.streams.find((s) => s.codec_type === 'video')
  if (!video) throw new Error(`${file}: no video`)
  return { ...found, video, audio: found.streams.find((s) => s.codec_type === 'audio') }
}

/**
 * Mean SSIM (all planes) between a file's picture and a filter graph over other inputs; the graph's output is
 * labelled [ref].
 */
export function ssim(file: string, inputs: readonly string[], graph: string): number {
  const args = [
    '-v',
    'info',
    '-i',
    file,
    ...inputs,
    '-filter_complex',
    `${graph};[0:v]setpts=N/30/TB,format=yuv420p[out];[ref]setpts=N/30/TB,format=yuv420p[r];[out][r]ssim=shortest=1`,
    '-f',
    'null',
    '-',
  ]
  const { stderr } = spawnSync('ffmpeg', args, { maxBuffer: 1 << 28 })
  const found = /All:([\d.]+)/.exec(stderr.toString())
  if (!found?.[1]) throw new Error(`no SSIM from ffmpeg:\n${stderr.toString().slice(-2000)}`)
  return Number(found[1])
}

/** Mean luma of every frame. */
export function lumaOfFrames(file: string): number[] {
  const raw = run('ffmpeg', [
    '-v',
    'error',
    '-i',
    file,
    '-vf',
    'scale=16:16:flags=area,format=gray',
    '-fps_mode',
    'passthrough',
    '-f',
    'rawvideo',
    '-',
  ])
  const frames: number[] = []
  for (let at = 0; at + 256 <= raw.length; at += 256)
    frames.push(raw.subarray(at, at + 256).reduce((a, b) => a + b, 0) / 256)
  return frames
}

/** Presentation times of every frame, in seconds. */
export function frameTimes(file: string): number[] {
  const text = run('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v',
    '-show_entries',
    'frame=best_effort_timestamp_time',
    '-of',
    'csv=p=0',
    file,
  ]).toString()
  return text
    .split('\n')
    .filter(Boolean)
    .map((line) => Number(line.split(',')[0]))
}

/** A file's sound as mono 48 kHz floats from presentation time 0 on; silence where a track starts late. */
export function sound(file: string): Float32Array {
  const raw = run('ffmpeg', [
    '-v',
    'error',
    '-i',
    file,
    '-af',
    'aresample=48000:async=1:first_pts=0',
    '-ac',
    '1',
    '-f',
    'f32le',
    '-',
  ])
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength))
}

/** Seconds at which sound first gets louder than `threshold` after `from` seconds. */
export function onset(samples: Float32Array, threshold = 0.1, from = 0): number {
  for (let i = Math.round(from * 48000); i < samples.length; i++)
    if (Math.abs(samples[i] ?? 0) > threshold) return i / 48000
  return NaN
}

/** One RGB pixel of a file's frame at `seconds`. */
export function pixelAt(file: string, seconds: number, x: number, y: number): [number, number, number] {
  const raw = run('ffmpeg', [
    '-v',
    'error',
    '-ss',
    String(seconds),
    '-i',
    file,
    '-frames:v',
    '1',
    '-vf',
    `crop=8:8:${x - 4}:${y - 4},scale=1:1:flags=area,format=rgb24`,
    '-f',
    'rawvideo',
    '-',
  ])
  return [raw[0] ?? 0, raw[1] ?? 0, raw[2] ?? 0]
}
