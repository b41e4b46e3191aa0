import { expect, test } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { halfOf, halveToRgba, type Planes420, type YuvCoding } from './halve'
import { shrinkToRgba } from './shrink'

const CODING: YuvCoding = { matrix: 'bt709', fullRange: false }

/** I420 planes of a picture whose samples `at` gives: luma by place, colour differences by place at half the size. */
function planesOf(width: number, height: number, at: (plane: 0 | 1 | 2, x: number, y: number) => number): Planes420 {
  const half = halfOf({ width, height })
  const rows = (plane: 0 | 1 | 2, w: number, h: number) =>
    Array.from({ length: w * h }, (_, i) => Math.round(at(plane, i % w, Math.floor(i / w))))
  const [y, u, v] = [rows(0, width, height), rows(1, half.width, half.height), rows(2, half.width, half.height)]
  return {
    bytes: Uint8Array.from([...y, ...u, ...v]),
    y: { offset: 0, stride: width, step: 1 },
    u: { offset: y.length, stride: half.width, step: 1 },
    v: { offset: y.length + u.length, stride: half.width, step: 1 },
  }
}

/** The box mean of what {@link halveToRgba} makes, whose own test holds it to H.273. */
function boxMean(planes: Planes420, width: number, height: number, to: { width: number; height: number }): number[] {
  const half = halfOf({ width, height })
  const words = new Uint32Array(half.width * half.height)
  halveToRgba(planes, { width, height }, CODING, words)
  const rgba = new Uint8Array(words.buffer)
  const [across, down] = [half.width / to.width, half.height / to.height]
  return Array.from({ length: to.width * to.height * 4 }, (_, i) => {
    const [column, row] = [Math.floor(i / 4) % to.width, Math.floor(i / 4 / to.width)]
    let sum = 0
    for (let y = row * down; y < (row + 1) * down; y++)
      for (let x = column * across; x < (column + 1) * across; x++)
        sum += rgba[(y * half.width + x) * 4 + (i % 4)] as number
    return sum / across / down
  })
}

test('a picture of ramps comes down to the means of what its pixels cover', () => {
  const [width, height, to] = [1280, 720, { width: 64, height: 36 }]
  const planes = planesOf(width, height, (plane, x, y) =>
    plane === 0 ? 30 + (x / width) * 120 + (y / height) * 60 : 110 + (plane === 1 ? x / 20 : y / 20),
  )
  const out = new Uint8ClampedArray(to.width * to.height * 4)
  shrinkToRgba(planes, { width, height }, CODING, to, out)
  const mean = boxMean(planes, width, height, to)
  expect(Math.max(...mean.map((m, i) => Math.abs(m - (out[i] as number))))).toBeLessThan(2.5)
})

test(`noise averages out, and a picture smaller than what is made of it is spread (seed ${SEED})`, () => {
  const random = seeded(SEED)
  const noisy = planesOf(1280, 720, (plane) => (plane === 0 ? random.integer(16, 235) : 128))
  const out = new Uint8ClampedArray(64 * 36 * 4)
  shrinkToRgba(noisy, { width: 1280, height: 720 }, CODING, { width: 64, height: 36 }, out)
  const grey = out.filter((_, i) => i % 4 === 0)
  expect(Math.max(...grey.map((g) => Math.abs(g - 127)))).toBeLessThan(35)
  const two = planesOf(2, 2, (plane, x) => (plane === 0 ? 16 + 219 * x : 128))
  const wide = new Uint8ClampedArray(4 * 1 * 4)
  shrinkToRgba(two, { width: 2, height: 2 }, CODING, { width: 4, height: 1 }, wide)
  expect([0, 4, 8, 12].map((i) => wide[i])).toEqual([0, 0, 255, 255])
})
