import { existsSync, mkdirSync, readFileSync, truncateSync, writeFileSync, copyFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ffmpeg } from './ffmpeg'
import { numberFilter } from './numbered'

export const MADE = join(dirname(fileURLToPath(import.meta.url)), '..', '.made')

export const made = (name: string) => join(MADE, name)

/** Seconds at which the pattern recordings flash white and beep, for a tenth of a second. */
export const FLASH = 5

const FLASH_FILTER = `drawbox=c=white:t=fill:enable='between(t,${FLASH},${FLASH}.099)'`
const BEEP = `aevalsrc='if(between(t,${FLASH},${FLASH}.1),0.5*sin(2*PI*1000*t),0)':s=48000:c=stereo`
const TAGS_709 = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv']
const FAST_H264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p']

/** A moving test pattern with a flash and a beep at {@link FLASH}. */
function pattern(size: string, rate: string, seconds: number): string[] {
  return [
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=${size}:r=${rate}:d=${seconds},${FLASH_FILTER}`,
    '-f',
    'lavfi',
    '-i',
    `${BEEP}:d=${seconds}`,
  ]
}

/** Pieces of the demo's recordings put together to one 1080p30 recording, cut hard. */
function putTogether(pieces: readonly [name: string, from: number, seconds: number][], coding: string[], out: string) {
  const inputs = pieces.flatMap(([name, from, seconds]) => [
    ...['-ss', String(from), '-t', String(seconds)],
    ...['-i', `public/demo/${name}.mp4`],
  ])
  const chains = pieces.map((_, n) => `[${n}:v]scale=1920:1080,fps=30,setsar=1,format=yuv420p[v${n}];`).join('')
  const joined = pieces.map((_, n) => `[v${n}]`).join('')
  ffmpeg(
    ...inputs,
    ...['-filter_complex', `${chains}${joined}concat=n=${pieces.length}:v=1:a=0[v]`, '-map', '[v]'],
    ...FAST_H264,
    ...coding,
    out,
  )
}

/** What is said in `spoken.mp4`, by a synthesiser. */
export const SPOKEN = [
  'Good morning everybody and welcome back to the workshop',
  'First we open the case and look at the gears',
  'You should never use water here',
  'My grandfather taught me that in nineteen seventy four',
]

/** Where the scenes of `scenes.mp4` and the shots of `edited.mp4` change, seconds. */
export const SCENES_CHANGE = [8, 16.5]
export const SHOTS_CHANGE = [2.2, 4, 7, 8.6, 11]

const recipes: Record<string, (out: string) => void> = {
  'pattern.mp4': (out) =>
    ffmpeg(
      ...pattern('1920x1080', '60', 12),
      ...FAST_H264,
      '-crf',
      '18',
      '-g',
      '120',
      ...TAGS_709,
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      out,
    ),
  // Every frame carries its number; a beep begins with every thirtieth, once a second.
  'numbered.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      `color=black:s=1280x720:r=30:d=14,${numberFilter(1280, 720)}`,
      '-f',
      'lavfi',
      '-i',
      "aevalsrc='if(lt(mod(t,1),0.06),0.5*sin(2*PI*1000*t),0)':s=48000:c=stereo:d=14",
      ...FAST_H264,
      '-crf',
      '18',
      '-g',
      '60',
      ...TAGS_709,
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      out,
    ),
  // Sound at 44.1 kHz, a frame rate of 30000/1001, and a Matroska clock that rounds to milliseconds.
  'ntsc.mkv': (out) =>
    ffmpeg(...pattern('1280x720', '30000/1001', 9), ...FAST_H264, '-ar', '44100', '-c:a', 'aac', out),
  'vp9.webm': (out) =>
    ffmpeg(
      ...pattern('640x360', '30', 8),
      '-c:v',
      'libvpx-vp9',
      '-deadline',
      'realtime',
      '-cpu-used',
      '8',
      '-c:a',
      'libopus',
      out,
    ),
  'late-sound.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=1280x720:r=30:d=8,${FLASH_FILTER}`,
      '-itsoffset',
      '2',
      '-f',
      'lavfi',
      '-i',
      `aevalsrc='if(between(t,${FLASH - 2},${FLASH - 2}.1),0.5*sin(2*PI*1000*t),0)':s=48000:c=stereo:d=6`,
      '-map',
      '0:v',
      '-map',
      '1:a',
      ...FAST_H264,
      '-c:a',
      'aac',
      out,
    ),
  // 24-bit sound, which Chromium's own sound decoder dies of.
  'sound-24.mov': (out) => ffmpeg(...pattern('640x360', '30', 8), ...FAST_H264, '-c:a', 'pcm_s24le', out),
  'sound-24.mkv': (out) => ffmpeg(...pattern('640x360', '30', 8), ...FAST_H264, '-c:a', 'pcm_s24le', out),
  'silent.mp4': (out) => ffmpeg('-f', 'lavfi', '-i', `testsrc2=s=1280x720:r=30:d=8,${FLASH_FILTER}`, ...FAST_H264, out),
  // The scene of the stream, a call, and the stream's again, with key frames where they happen to fall.
  'scenes.mp4': (out) =>
    putTogether(
      [
        ['ridge-cup-stream', 0, 8],
        ['open-day-call', 2, 8.5],
        ['ridge-cup-stream', 12, 8],
      ],
      ['-g', '120', '-sc_threshold', '0'],
      out,
    ),
  'edited.mp4': (out) =>
    putTogether(
      [
        ['field-dawn', 0, 2.2],
        ['field-winch', 1, 1.8],
        ['field-dusk', 0, 3],
        ['field-dawn', 4, 1.6],
        ['field-winch', 5, 2.4],
        ['field-dusk', 6, 2],
      ],
      [],
      out,
    ),
  // The demo stream as another machine would have recorded it: another part, smaller, coarser.
  'stream-720.mp4': (out) =>
    ffmpeg(
      '-ss',
      '14',
      '-t',
      '20',
      '-i',
      'public/demo/ridge-cup-stream.mp4',
      '-vf',
      'scale=1280:720',
      '-r',
      '30',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '30',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      out,
    ),
  'variable-rate.mp4': (out) =>
    ffmpeg(
      ...pattern('1280x720', '60', 8),
      '-vf',
      "select='if(between(t,2,6),not(mod(n,3)),1)'",
      '-fps_mode',
      'vfr',
      ...FAST_H264,
      '-c:a',
      'aac',
      out,
    ),
  // Odd in both directions: 4:4:4 is the only H.264 that allows it; most browsers decode it.
  'odd-size.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=853x479:r=30:d=8,${FLASH_FILTER}`,
      '-f',
      'lavfi',
      '-i',
      `${BEEP}:d=8`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-pix_fmt',
      'yuv444p',
      '-c:a',
      'aac',
      out,
    ),
  // Red above, blue below when upright; stored lying on its side, as phones do.
  'phone.mp4': (out) => {
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'color=red:s=360x640:r=30:d=6',
      '-f',
      'lavfi',
      '-i',
      'color=blue:s=360x640:r=30:d=6',
      '-filter_complex',
      '[0][1]hstack',
      ...FAST_H264,
      ...TAGS_709,
      out,
    )
    turnQuarterClockwise(out)
  },
  // 75 % bars: what every colour must come out as is known.
  'bars.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'smptehdbars=s=1920x1080:r=30:d=4',
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p',
      ...FAST_H264,
      '-crf',
      '10',
      ...TAGS_709,
      out,
    ),
  'bars-601-full.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'smptehdbars=s=1920x1080:r=30:d=4',
      '-vf',
      'scale=out_color_matrix=bt601:out_range=pc,format=yuv420p',
      ...FAST_H264,
      '-crf',
      '10',
      '-colorspace',
      'smpte170m',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'pc',
      out,
    ),
  'hevc.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=320x180:r=30:d=2',
      '-c:v',
      'libx265',
      '-x265-params',
      'log-level=error',
      '-tag:v',
      'hvc1',
      out,
    ),
  'mpeg4.mp4': (out) => ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=30:d=2', '-c:v', 'mpeg4', out),
  'hdr.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=640x360:r=30:d=1',
      '-c:v',
      'libaom-av1',
      '-cpu-used',
      '8',
      '-usage',
      'realtime',
      '-pix_fmt',
      'yuv420p10le',
      '-color_primaries',
      'bt2020',
      '-color_trc',
      'smpte2084',
      '-colorspace',
      'bt2020nc',
      out,
    ),
  'sound-only.mp4': (out) => ffmpeg('-f', 'lavfi', '-i', 'sine=440:d=3', '-c:a', 'aac', out),
  'chapters.mp4': (out) => withChapters(out),
  'chapters.mkv': (out) => withChapters(out),
  // A tone that no voice has much of, to be found again in a mix.
  'music.wav': (out) =>
    ffmpeg('-f', 'lavfi', '-i', 'sine=3000:d=20', '-af', 'volume=12dB', '-ac', '2', '-ar', '44100', out),
  // At this rate a block of coded sound begins just before the first second is over.
  'tone.mp4': (out) =>
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=640x360:r=30:d=5',
      '-f',
      'lavfi',
      '-i',
      'aevalsrc=0.5*sin(2*PI*1000*t):s=44100:c=stereo:d=5',
      ...FAST_H264,
      '-c:a',
      'aac',
      '-b:a',
      '192k',
      out,
    ),
  'empty.mp4': (out) => writeFileSync(out, ''),
  'notes.mp4': (out) => writeFileSync(out, 'Not a video: a shopping list with a wrong name.\n'.repeat(200)),
  // Written without an index at the front, then cut off: the index is lost.
  'cut-short.mp4': (out) => {
    ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=30:d=6', ...FAST_H264, out)
    truncateSync(out, Math.floor(readFileSync(out).length * 0.6))
  },
  // Index at the front, second half of the pictures lost.
  'half.mp4': (out) => {
    ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=30:d=8', ...FAST_H264, '-g', '30', '-movflags', '+faststart', out)
    truncateSync(out, Math.floor(readFileSync(out).length * 0.5))
  },
  // A good index and start; in the middle nothing but noise.
  'damaged.mp4': (out) => {
    ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=30:d=6', ...FAST_H264, '-g', '30', '-movflags', '+faststart', out)
    const bytes = readFileSync(out)
    for (let i = Math.floor(bytes.length * 0.5); i < Math.floor(bytes.length * 0.7); i++) bytes[i] = (i * 7919) & 255
    writeFileSync(out, bytes)
  },
  // What is coded another way part-way: the same recorder, another size.
  'size-changes.mp4': (out) => {
    const parts = ['640x360', '320x240'].map((size, n) => {
      const part = made(`size-${n}.ts`)
      const at = ['-output_ts_offset', String(3 * n)]
      ffmpeg('-f', 'lavfi', '-i', `testsrc2=s=${size}:r=30:d=3`, ...FAST_H264, '-g', '30', ...TAGS_709, ...at, part)
      return readFileSync(part)
    })
    writeFileSync(made('size-changes.ts'), Buffer.concat(parts))
    ffmpeg('-i', made('size-changes.ts'), '-c', 'copy', out)
  },
  // Two captures of three seconds, one behind the other: the clock begins anew.
  'restarts.ts': (out) => {
    const part = made('restart-part.ts')
    ffmpeg(...pattern('640x360', '30', 3), ...FAST_H264, '-g', '30', '-c:a', 'aac', part)
    writeFileSync(out, Buffer.concat([readFileSync(part), readFileSync(part)]))
  },
  // A capture that began between two key frames.
  'begins-between.mkv': (out) => {
    const drop = ['-bsf:v', 'noise=drop=lt(n\\,20)']
    ffmpeg(...pattern('640x360', '30', 4), ...FAST_H264, '-g', '30', '-c:a', 'aac', made('begins.mp4'))
    ffmpeg('-i', made('begins.mp4'), '-c', 'copy', ...drop, out)
  },
  'three-tracks.mkv': (out) =>
    ffmpeg(
      ...pattern('640x360', '30', 3),
      ...['-f', 'lavfi', '-i', 'sine=600:d=3', '-f', 'lavfi', '-i', 'sine=900:d=5'],
      ...['-map', '0', '-map', '1', '-map', '2', '-map', '3', ...FAST_H264, '-c:a', 'aac'],
      ...['-metadata:s:a:0', 'title=Mix', '-metadata:s:a:1', 'title=Microphone', '-metadata:s:a:2', 'title=Game'],
      out,
    ),
  'interlaced.mp4': (out) =>
    ffmpeg('-f', 'lavfi', '-i', 'testsrc2=s=720x576:r=25:d=2', ...FAST_H264, '-flags', '+ildct+ilme', out),
  'encrypted.mp4': (out) => {
    const key = '76a6c65c5ea762046bd749a2e632ccbb'
    ffmpeg(
      ...['-i', made('silent.mp4'), '-c', 'copy', '-encryption_scheme', 'cenc-aes-ctr'],
      ...['-encryption_key', key, '-encryption_kid', key, out],
    )
  },
  // As phones record them: HDR in ten bits, on its side, at a rate that varies; skin over grey, a flash and a beep.
  'phone-hdr.mov': (out) => {
    const flat = made('phone-flat.mov')
    const filters = [FLASH_FILTER, 'drawbox=c=0xC08060:t=fill:w=iw/2:h=ih/2', "select='not(eq(mod(n,7),3))'"]
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=gray:s=640x360:r=30:d=7,${filters.join(',')}`],
      ...['-f', 'lavfi', '-i', `${BEEP}:d=7`, '-fps_mode', 'vfr', '-c:v', 'libx265', '-preset', 'ultrafast'],
      ...['-x265-params', 'log-level=error', '-pix_fmt', 'yuv420p10le', '-tag:v', 'hvc1', '-c:a', 'aac'],
      ...['-colorspace', 'bt2020nc', '-color_primaries', 'bt2020', '-color_trc', 'arib-std-b67', flat],
    )
    ffmpeg('-i', flat, '-c', 'copy', '-metadata:s:v:0', 'rotate=90', out)
  },
  'prores.mov': (out) => ffmpeg(...pattern('640x360', '30', 7), '-c:v', 'prores', '-c:a', 'pcm_s16le', out),
  'interlaced-dv.avi': (out) =>
    ffmpeg(
      ...pattern('720x576', '25', 7),
      ...[
        '-vf',
        'setfield=bff',
        '-c:v',
        'dvvideo',
        '-pix_fmt',
        'yuv420p',
        '-flags',
        '+ildct+ilme',
        '-c:a',
        'pcm_s16le',
      ],
      out,
    ),
  // Standard definition that does not say how its colours are meant, which is BT.601.
  'untagged-sd.mp4': (out) =>
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'color=0xC03060:s=720x576:r=25:d=3'],
      ...['-vf', 'scale=out_color_matrix=bt601:out_range=tv,format=yuv420p', ...FAST_H264, out],
    ),
  // A voice and words that are not the demo's.
  'spoken.mp4': (out) => {
    const speech = SPOKEN.map((text, n) => `flite=text='${text}':voice=rms,adelay=600|600[s${n}]`)
    const joined = `${SPOKEN.map((_, n) => `[s${n}]`).join('')}concat=n=${SPOKEN.length}:v=0:a=1,aresample=48000,asetnsamples=1024[a]`
    const graph = `testsrc2=s=640x360:r=30:d=16[v];${speech.join(';')};${joined}`
    ffmpeg('-filter_complex', graph, '-map', '[v]', '-map', '[a]', ...FAST_H264, '-c:a', 'aac', '-ac', '2', out)
  },
  'mpeg2.ts': (out) => ffmpeg(...pattern('640x360', '30', 2), '-c:v', 'mpeg2video', '-c:a', 'mp2', out),
  'old.avi': (out) => ffmpeg(...pattern('640x360', '30', 2), '-c:v', 'mpeg4', '-c:a', 'libmp3lame', out),
  '<img src=x onerror=alert(1)>.mp4': (out) => copyFileSync(made('silent.mp4'), out),
}

/** Twelve seconds with three chapters, as recorders write them. */
function withChapters(out: string): void {
  const list = made('chapters.txt')
  const chapters = ['Winch launch', 'Thermal & turn', 'Final glide'].map(
    (title, i) => `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${i * 4000}\nEND=${(i + 1) * 4000}\ntitle=${title}\n`,
  )
  writeFileSync(list, `;FFMETADATA1\n${chapters.join('')}`)
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=640x360:r=30:d=12',
    '-f',
    'lavfi',
    '-i',
    'sine=440:d=12',
    '-i',
    list,
    '-map',
    '0',
    '-map',
    '1',
    '-map_metadata',
    '2',
    ...FAST_H264,
    '-c:a',
    'aac',
    out,
  )
}

/** Writes a quarter turn into an MP4's track header (ISO/IEC 14496-12, 8.3.2), as a phone held upright does. */
function turnQuarterClockwise(file: string): void {
  const bytes = readFileSync(file)
  const matrix = bytes.indexOf('tkhd') + 4 + 40
  ;[0, 0x10000, 0, -0x10000, 0, 0, 0, 0, 0x40000000].forEach((value, i) => bytes.writeInt32BE(value, matrix + i * 4))
  writeFileSync(file, bytes)
}

/** Makes every recording that the browser tests use, once; they are small and never committed. */
export default function makeRecordings(): void {
  mkdirSync(MADE, { recursive: true })
  for (const [name, recipe] of Object.entries(recipes)) if (!existsSync(made(name))) recipe(made(name))
}

/** Two hours of 1080p in about a gigabyte: a minute of the pattern, over and over, without coding it again. */
export function makeTwoHours(): string {
  const out = made('two-hours.mp4')
  if (existsSync(out)) return out
  const minute = made('minute.mp4')
  ffmpeg(
    ...pattern('1920x1080', '30', 60),
    ...FAST_H264,
    '-b:v',
    '250k',
    '-maxrate',
    '300k',
    '-bufsize',
    '500k',
    '-g',
    '60',
    '-c:a',
    'aac',
    '-b:a',
    '48k',
    minute,
  )
  ffmpeg('-stream_loop', '119', '-i', minute, '-c', 'copy', '-movflags', '+faststart', out)
  return out
}
