import { expect, test } from 'vitest'
import { parseTypedNumber, parseTypedSeconds } from './typedTime'

test.each([
  ['90', 90],
  ['90s', 90],
  ['90 sec', 90],
  ['12:00', 720],
  ['1:02:03.5', 3723.5],
  ['0:07,25', 7.25],
  ['.5', 0.5],
  ['1200f', 20],
  ['30 frames', 0.5],
  ['75:10', 4510],
])('%s is a time', (text, seconds) => expect(parseTypedSeconds(text, 1 / 60)).toBeCloseTo(seconds, 9))

test.each(['', 'soon', '12:99', '1:61:00', '1:2:3:4', '-5', '5m', '1e3', '0x10', '12:', ':30', 'NaN', '12:00f'])(
  '“%s” is none',
  (text) => expect(parseTypedSeconds(text, 1 / 60)).toBeNull(),
)

test('frames are only counted where it is known how long one is', () =>
  expect(parseTypedSeconds('1200f', null)).toBeNull())

test('numbers are taken as they are meant, or not at all', () => {
  expect(['12', '12,5', '-3', '−3', '.5', '7.'].map(parseTypedNumber)).toEqual([12, 12.5, -3, -3, 0.5, 7])
  expect(['', '12px', '1e3', '0x10', 'Infinity', '1.2.3', '--1'].map(parseTypedNumber)).toEqual(Array(7).fill(null))
})
