import { expect, test } from '@playwright/test'
import {
  addFiles,
  keepToRule,
  moveCut,
  renderAndSave,
  setRegion,
  SMALL,
  toBench,
  watchForErrors,
} from '../support/brimble'
import { ffprobe, frameTimes, lumaOfFrames, onset, pixelAt, sound } from '../support/ffmpeg'
import { FLASH, made } from '../support/makeRecordings'

const WHOLE_720 = { x: 0, y: 0, width: 1280, height: 720 }

/** Seconds between the flash's first frame and the beep in a finished file; NaN when one of them is missing. */
function soundBehindPicture(path: string): number {
  const flashFrame = lumaOfFrames(path).findIndex((luma) => luma > 170)
  return onset(sound(path)) - (frameTimes(path)[flashFrame] ?? NaN)
}

for (const [file, name, from] of [
  ['ntsc.mkv', 'ntsc', 3],
  ['vp9.webm', 'vp9', 3],
  // Its sound begins at 2 s: what is before it belongs to the file as well.
  ['late-sound.mp4', 'late-sound', 1],
  ['variable-rate.mp4', 'variable-rate', 3],
  ['odd-size.mp4', 'odd-size', 3],
  ['sound-24.mov', 'sound-24', 3],
  ['sound-24.mkv', 'sound-24', 3],
] as const) {
  test(`${file} comes out in sync and of the right length`, async ({ page }) => {
    const errors = watchForErrors(page)
    await toBench(page, made(file), name)
    await moveCut(page, 'In point', from)
    await moveCut(page, 'Out point', file === 'ntsc.mkv' ? -3 : -2)
    const { path } = await renderAndSave(page, { size: SMALL })
    const { video, audio, format } = ffprobe(path)
    const [num = 0, den = 1] = (video.r_frame_rate ?? '').split('/').map(Number)
    const frame = den / num
    const seconds = 6 - from
    expect(Math.abs(Number(format.duration) - seconds)).toBeLessThanOrEqual(frame + 0.001)
    if (file !== 'variable-rate.mp4')
      expect(Math.abs(Number(video.nb_read_frames) - 30 * seconds)).toBeLessThanOrEqual(1)
    expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000' })
    expect(Math.abs(soundBehindPicture(path))).toBeLessThan(0.02)
    expect(onset(sound(path))).toBeGreaterThan(FLASH - from - 0.05)
    expect(onset(sound(path))).toBeLessThan(FLASH - from + 0.05)
    errors.expectNone()
  })
}

test('sound is there in full from the first moment of a cut, though the block that it begins in overlaps with what is left out', async ({
  page,
}) => {
  await toBench(page, made('tone.mp4'), 'tone')
  await moveCut(page, 'In point', 1)
  const { path } = await renderAndSave(page, { size: SMALL })
  const heard = sound(path)
  const strength = (fromMs: number, toMs: number) =>
    Math.sqrt(heard.slice(fromMs * 48, toMs * 48).reduce((sum, v) => sum + v * v, 0) / ((toMs - fromMs) * 48))
  // Both channels, summed to one at 3 dB less each.
  expect(strength(1000, 1100)).toBeCloseTo(0.5, 2)
  // Cuts fade in over 3 ms, so as not to click.
  for (const ms of [4, 6, 8, 10, 14])
    expect(strength(ms, ms + 2) / strength(1000, 1100), `${ms} ms in`).toBeGreaterThan(0.9)
})

test('a recording without sound gives a file without sound', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await moveCut(page, 'Out point', -6)
  const { path } = await renderAndSave(page, { size: SMALL })
  const { audio, video } = ffprobe(path)
  expect(audio).toBeUndefined()
  expect(video.nb_read_frames).toBe('60')
})

test('a phone recording is shown and rendered upright', async ({ page }) => {
  await toBench(page, made('phone.mp4'), 'phone')
  await keepToRule(page)
  await setRegion(page, 'Face', { x: 100, y: 0, width: 160, height: 320 })
  await setRegion(page, 'Game', { x: 0, y: 360, width: 640, height: 360 })
  await moveCut(page, 'Out point', -5)
  const { path } = await renderAndSave(page)
  const [red, , blueAbove] = pixelAt(path, 0.5, 540, 300)
  const [redBelow, , blue] = pixelAt(path, 0.5, 540, 1600)
  expect(red).toBeGreaterThan(200)
  expect(blueAbove).toBeLessThan(60)
  expect(blue).toBeGreaterThan(200)
  expect(redBelow).toBeLessThan(60)
})

for (const file of ['bars.mp4', 'bars-601-full.mp4']) {
  test(`the colours of ${file} come out as they went in`, async ({ page }) => {
    await toBench(page, made(file), file.replace('.mp4', ''))
    // The face’s region is in the middle of the game’s.
    await keepToRule(page)
    // The lower 7/12 of the bars hold ramps: the game band shows the eight columns of the upper part.
    await setRegion(page, 'Game', { x: 240, y: 0, width: 1440, height: 600 })
    await setRegion(page, 'Face', { x: 700, y: 40, width: 500, height: 280 })
    await moveCut(page, 'Out point', -3)
    const { path } = await renderAndSave(page)
    // The game panel is 1080 × 1312: its crop of the 1440 × 600 region is 493.9 px wide, in the middle (713…1207).
    for (const [outX, sourceX] of [
      [80, 750],
      [250, 828],
      [540, 960],
      [800, 1079],
      [1000, 1170],
    ] as const) {
      const ours = pixelAt(path, 0.5, outX, 1000)
      const theirs = pixelAt(made(file), 0.5, sourceX, 180)
      // Chromium converts frames to RGB in 7-bit steps on the processor, which cannot hold BT.709's 2.112 for blue:
      // 2.0 is used, up to 10 levels off.
      ours.forEach((value, i) =>
        expect(
          Math.abs(value - (theirs[i] ?? 0)),
          `x ${outX}: ${ours.join()} for ${theirs.join()}`,
        ).toBeLessThanOrEqual(i === 2 ? 10 : 5),
      )
    }
  })
}

test('what a file says of itself is shown as text, never run', async ({ page }) => {
  const errors = watchForErrors(page)
  let dialogs = 0
  page.on('dialog', (dialog) => {
    dialogs++
    void dialog.dismiss()
  })
  await addFiles(page, made('<img src=x onerror=alert(1)>.mp4'))
  await expect(page.getByRole('heading', { name: '<img src=x onerror=alert(1)>' })).toBeVisible()
  expect(dialogs).toBe(0)
  errors.expectNone()
})

test('a 720p recording fills the frame it is given', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await setRegion(page, 'Game', WHOLE_720)
  await expect(page.getByRole('group', { name: /^Game: 1280 × 720 at 0, 0/ })).toBeVisible()
})

test('standard definition that does not say so keeps its colours', async ({ page }) => {
  await toBench(page, made('untagged-sd.mp4'), 'untagged-sd')
  const { path } = await renderAndSave(page, { size: SMALL })
  const { video } = ffprobe(path)
  const pixel = pixelAt(path, 1, Math.round(Number(video.width) / 2), Math.round(Number(video.height) / 2))
  for (const [channel, level] of [0xc0, 0x30, 0x60].entries())
    expect(Math.abs((pixel[channel] ?? NaN) - level), String(pixel)).toBeLessThanOrEqual(4)
})
