import { expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { USUAL_OUTPUT } from '../model/outputChoice'
import { renderSettings } from '../model/render'
import type { FrameRate } from '../time/frameRate'
import { editToDraw, isBeside, isOnPicture, ratesFor, settingsFor } from './renderSettings'

const recorded = (num: number, den = 1) => {
  const { video } = sampleEdit().recordings[0] as ReturnType<typeof sampleEdit>['recordings'][number]
  return { video: { ...video, frameRate: { num, den } } }
}
const tall = { id: 'tall', width: 1080, height: 1920 }

it('rates are the recording’s own and slower ones; fractional ones stay exact', () => {
  expect(ratesFor(recorded(30000, 1001))).toEqual<FrameRate[]>([
    { num: 30000, den: 1001 },
    { num: 24, den: 1 },
    { num: 25, den: 1 },
  ])
  expect(ratesFor(recorded(60000, 1001)).slice(0, 2)).toEqual<FrameRate[]>([
    { num: 60000, den: 1001 },
    { num: 30000, den: 1001 },
  ])
  expect(ratesFor(recorded(144))[0]).toEqual({ num: 60, den: 1 })
})

it('a choice comes to numbers that a render takes; a rate above the recording’s own comes down to it', () => {
  const settings = settingsFor(
    { ...USUAL_OUTPUT, frameRate: { num: 30, den: 1 } },
    sampleEdit(),
    tall,
    recorded(60),
    30,
  )
  expect(renderSettings.parse(settings)).toEqual(settings)
  expect(settings.videoBitrate).toBe(Math.round(1080 * 1920 * 30 * 0.129))
  expect(
    settingsFor({ ...USUAL_OUTPUT, frameRate: { num: 60, den: 1 } }, sampleEdit(), tall, recorded(25), 30).frameRate,
  ).toEqual({ num: 25, den: 1 })
  expect(
    settingsFor(
      { ...USUAL_OUTPUT, quality: 'high' },
      sampleEdit(),
      { id: 'huge', width: 3840, height: 3840 },
      recorded(60),
      30,
    ).videoBitrate,
  ).toBe(100_000_000)
})

it('captions are drawn where they are to be on the picture, whatever the Bench shows, and nothing else changes', () => {
  const edit = sampleEdit()
  expect((['picture', 'beside', 'both', 'neither'] as const).map((c) => [isOnPicture(c), isBeside(c)])).toEqual([
    [true, false],
    [false, true],
    [true, true],
    [false, false],
  ])
  expect(editToDraw(edit, { captions: 'picture' })).toBe(edit)
  const without = editToDraw(edit, { captions: 'beside' })
  expect(without.highlight.words.captions.shown).toBe(false)
  expect({ ...without, highlight: edit.highlight }).toEqual(edit)
})

it('a limit of size comes to a bitrate with which a file stays under it, and to none that a quality would not take', () => {
  const limited = settingsFor({ ...USUAL_OUTPUT, mostBytes: 10_000_000 }, sampleEdit(), tall, recorded(60), 30)
  expect(((limited.videoBitrate + limited.audioBitrate) * 30) / 8).toBeLessThan(10_000_000)
  expect(((limited.videoBitrate + limited.audioBitrate) * 30) / 8).toBeGreaterThan(9_000_000)
  expect(settingsFor({ ...USUAL_OUTPUT, mostBytes: 1_000_000_000 }, sampleEdit(), tall, recorded(60), 30)).toEqual({
    ...settingsFor(USUAL_OUTPUT, sampleEdit(), tall, recorded(60), 30),
    constantQuality: null,
  })
})
