import { expect, test } from '@playwright/test'
import { ffprobe, frameTimes, lumaOfFrames, onset, sound, ssim } from '../support/ffmpeg'
import { renderAndSave, setRegion, moveCut, toBench, watchForErrors } from '../support/brimble'
import { FLASH, made } from '../support/makeRecordings'

const FACE = { x: 1340, y: 752, width: 540, height: 304 }
const GAME = { x: 430, y: 30, width: 540, height: 656 }

test('a recording becomes a stacked vertical file that ffprobe and ffmpeg agree with', async ({ page }) => {
  const errors = watchForErrors(page)
  await toBench(page, made('pattern.mp4'), 'pattern')
  await setRegion(page, 'Face', FACE)
  await setRegion(page, 'Game', GAME)
  await moveCut(page, 'In point', 2)
  await moveCut(page, 'Out point', -4)
  const { path, fileName } = await renderAndSave(page, { rate: '30 fps' })
  expect(fileName).toBe('pattern, cut 1 tall 1.mp4')

  const { video, audio, format } = ffprobe(path)
  expect(video).toMatchObject({
    codec_name: 'h264',
    profile: 'High',
    width: 1080,
    height: 1920,
    r_frame_rate: '30/1',
    pix_fmt: 'yuv420p',
    nb_read_frames: '180',
  })
  expect(video).toMatchObject({
    color_range: 'tv',
    color_space: 'bt709',
    color_transfer: 'bt709',
    color_primaries: 'bt709',
  })
  expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000', channels: 2 })
  expect(Math.abs(Number(format.duration) - 6)).toBeLessThanOrEqual(1 / 30)

  const flashFrame = lumaOfFrames(path).findIndex((luma) => luma > 200)
  const flash = frameTimes(path)[flashFrame] ?? NaN
  expect(flash).toBeCloseTo(FLASH - 2, 2)
  expect(Math.abs(onset(sound(path)) - flash)).toBeLessThan(0.02)

  const crop = ({ x, y, width, height }: typeof FACE, to: string) => `crop=${width}:${height}:${x}:${y},scale=${to}`
  const composed = ssim(
    path,
    ['-ss', '2', '-t', '6', '-i', made('pattern.mp4')],
    `[1:v]select='not(mod(n,2))',split[a][b];[a]${crop(FACE, '1080:608')}[t];[b]${crop(GAME, '1080:1312')}[u];[t][u]vstack[ref]`,
  )
  expect(composed).toBeGreaterThanOrEqual(0.97)
  errors.expectNone()
})
