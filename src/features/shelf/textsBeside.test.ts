import { expect, it } from 'vitest'
import { withTextsBeside } from './textsBeside'

const chosen = (...names: string[]) => names.map((name) => ({ file: new File([], name), handle: null }))

it('captions go with the recording of their name, a language tag aside; others are left over', () => {
  const { recordings, left } = withTextsBeside(chosen('ridge.mp4', 'Ridge.en.vtt', 'call.mkv', 'tea tent.srt'))
  expect(recordings.map((r) => [r.chosen.file.name, r.text?.name ?? null])).toEqual([
    ['ridge.mp4', 'Ridge.en.vtt'],
    ['call.mkv', null],
  ])
  expect(left.map((f) => f.name)).toEqual(['tea tent.srt'])
})
