import { describe, expect, it } from 'vitest'
import type { Turn } from '../model/panel'
import { seenOf } from './seen'

const CROP = { x: 100.5, y: 40, width: 320, height: 180.25 }

/**
 * Where a canvas that is turned by quarters, then flipped, puts a place of the crop into a rectangle of one by one:
 * each side counted from its middle.
 */
function placed(u: number, v: number, turn: Turn, flip: boolean): { a: number; b: number } {
  const [x, y] = [(u - 0.5) * (flip ? -1 : 1), v - 0.5]
  const [cos, sin] = [Math.cos((turn * Math.PI) / 2), Math.sin((turn * Math.PI) / 2)]
  return { a: x * cos - y * sin + 0.5, b: x * sin + y * cos + 0.5 }
}

describe('what a rectangle shows of a crop', () => {
  it.each([0, 1, 2, 3].flatMap((turn) => [false, true].map((flip) => ({ turn: turn as Turn, flip }))))(
    'turned by $turn quarters, flipped: $flip',
    ({ turn, flip }) => {
      const { from, across, down } = seenOf(CROP, { turn, flip })
      for (const [u, v] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [0.3, 0.8],
      ] as const) {
        const { a, b } = placed(u, v, turn, flip)
        expect(from.x + a * across.x + b * down.x).toBeCloseTo(CROP.x + u * CROP.width, 9)
        expect(from.y + a * across.y + b * down.y).toBeCloseTo(CROP.y + v * CROP.height, 9)
      }
    },
  )
})
