import { expect, it } from 'vitest'
import { dateInName } from './dateInName'

const NOW = new Date(2026, 11, 1, 9, 0, 0)

it.each([
  ['2026-11-24 18-30-05.mkv', new Date(2026, 10, 24, 18, 30, 5)],
  ['VID_20261124_183005.mp4', new Date(2026, 10, 24, 18, 30, 5)],
  ['Ridge Cup 2026.11.24 - 18.30.mp4', new Date(2026, 10, 24, 18, 30, 0)],
  ['2026-11-24T18:30:05.mp4', new Date(2026, 10, 24, 18, 30, 5)],
  ['meeting 2026-11-24 at 07.05.33.mov', new Date(2026, 10, 24, 7, 5, 33)],
  ['heat 3, 2026_11_24.mp4', new Date(2026, 10, 24, 12, 0, 0)],
  ['20240229.mp4', new Date(2024, 1, 29, 12, 0, 0)],
])('%s was made when its name says', (name, made) => {
  expect(dateInName(name, NOW)).toEqual(made)
})

it.each([
  'heat 3.mp4',
  '1080p60.mp4',
  '2026-13-24.mp4',
  '2026-02-30 10-00-00.mp4',
  '120261124.mp4',
  '202611249.mp4',
  '2027-01-01 10-00-00.mp4',
  'clip-1999-11-24.mp4',
])('%s has no date that it could have been made on', (name) => {
  expect(dateInName(name, NOW)).toBeNull()
})
