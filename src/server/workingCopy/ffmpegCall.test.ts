import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ffmpeg, ffprobe, pixelAt, run } from '../../../tests/support/ffmpeg'
import { copyArguments, isHdr, PROBE_ARGUMENTS, readProbed, readProgress } from './ffmpegCall'

const folder = mkdtempSync(join(tmpdir(), 'brimble-copies-'))
const at = (name: string) => join(folder, name)
const probe = (name: string) => readProbed(run('ffprobe', [...PROBE_ARGUMENTS, at(name)]).toString())
const HEVC = ['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', 'log-level=error', '-pix_fmt', 'yuv420p10le']

beforeAll(() => {
  const grey = ['-f', 'lavfi', '-i', 'color=gray:s=320x181:r=25:d=1']
  const told = ['-color_primaries', 'bt2020', '-colorspace', 'bt2020nc']
  ffmpeg(...grey, ...HEVC, '-color_trc', 'smpte2084', ...told, at('told.mkv'))
  ffmpeg(...grey, ...HEVC, '-color_trc', 'smpte2084', at('untold.mkv'))
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=720x576:r=25:d=1',
    '-vf',
    'setfield=tff',
    '-c:v',
    'mpeg2video',
    '-flags',
    '+ildct+ilme',
    at('fields.mpg'),
  )
  ffmpeg('-f', 'lavfi', '-i', 'sine=440:d=1', at('sound.wav'))
})
afterAll(() => rmSync(folder, { recursive: true }))

function copied(name: string): string {
  const video = probe(name)
  if (!video) throw new Error(`no picture in ${name}`)
  ffmpeg(...copyArguments(at(name), at(`${name}.mp4`), video))
  return at(`${name}.mp4`)
}

describe('copies by ffmpeg', () => {
  it('of HDR are in BT.709 with an even size, also where the file tells of its curve alone', () => {
    expect([probe('told.mkv'), probe('untold.mkv')].map((v) => v && isHdr(v))).toEqual([true, true])
    expect(probe('untold.mkv')).toMatchObject({ transfer: 'smpte2084', primaries: null, matrix: null })
    const [told, untold] = ['told.mkv', 'untold.mkv'].map(copied)
    for (const path of [told, untold]) {
      expect(ffprobe(path ?? '').video).toMatchObject({
        codec_name: 'h264',
        width: 320,
        height: 180,
        pix_fmt: 'yuv420p',
      })
      expect(pixelAt(path ?? '', 0.5, 160, 90)).toEqual(pixelAt(told ?? '', 0.5, 160, 90))
    }
  })

  it('keep the rate and length of what was interlaced', () => {
    expect(probe('fields.mpg')).toMatchObject({ fieldOrder: 'tt' })
    const { video } = ffprobe(copied('fields.mpg'))
    expect(video).toMatchObject({ nb_read_frames: '25', r_frame_rate: '25/1' })
  })

  it('are of pictures; progress is the last that was said', () => {
    expect(probe('sound.wav')).toBeNull()
    expect(readProgress('frame=1\nout_time_us=40000\nprogress=continue\nout_time_us=1500000\n')).toBe(1.5)
    expect(readProgress('out_time_us=N/A\n')).toBeNull()
  })
})
