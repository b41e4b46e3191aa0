import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { copyFormOf } from './previewCopy'

function form(width: number, height: number, frames: number, per = 1) {
  const [recording] = sampleEdit().recordings
  if (!recording) throw new Error('a sample has a recording')
  return copyFormOf({ video: { ...recording.video, width, height, frameRate: { num: frames, den: per } } })
}

describe('the form of a preview copy', () => {
  it('is 540 px on the shorter side and at most 30 frames a second, in even pixels', () => {
    expect(form(1920, 1080, 60)).toMatchObject({ width: 960, height: 540, every: 2, frameRate: 30 })
    expect(form(1080, 1920, 30)).toMatchObject({ width: 540, height: 960, every: 1, frameRate: 30 })
    expect(form(3840, 2160, 60000, 1001)?.frameRate).toBeCloseTo(29.97, 2)
    expect(form(2560, 1080, 144)).toMatchObject({ width: 1280, height: 540, every: 5, frameRate: 28.8 })
    expect(form(1366, 768, 25)).toMatchObject({ width: 960, height: 540, frameRate: 25 })
  })

  it('is none where the recording is nearly as small', () => {
    expect(form(640, 360, 30)).toBeNull()
    expect(form(960, 540, 30)).toBeNull()
    expect(form(640, 360, 120)).not.toBeNull()
  })
})
