import { expect, test } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { halfOf, halveToRgba, type Plane, type Planes420, type YuvCoding } from './halve'

const CODINGS: YuvCoding[] = (['bt709', 'bt601'] as const).flatMap((matrix) =>
  [true, false].map((fullRange) => ({ matrix, fullRange })),
)
const WEIGHTS = { bt709: { kr: 0.2126, kb: 0.0722 }, bt601: { kr: 0.299, kb: 0.114 } }

/** Random planes with room around and between them. */
function picture(random: ReturnType<typeof seeded>, width: number, height: number, interleaved: boolean): Planes420 {
  const half = halfOf({ width, height })
  const yStride = width + random.integer(0, 9)
  const cStride = half.width * (interleaved ? 2 : 1) + random.integer(0, 9)
  const y: Plane = { offset: random.integer(0, 20), stride: yStride, step: 1 }
  const u: Plane = { offset: y.offset + yStride * height, stride: cStride, step: interleaved ? 2 : 1 }
  const v: Plane = { ...u, offset: interleaved ? u.offset + 1 : u.offset + cStride * half.height }
  return {
    bytes: Uint8Array.from({ length: v.offset + cStride * half.height + 32 }, () => random.integer(0, 255)),
    y,
    u,
    v,
  }
}

/** ITU-T H.273, in floating point. */
function reference(
  { bytes, y, u, v }: Planes420,
  size: { width: number; height: number },
  { matrix, fullRange }: YuvCoding,
  column: number,
  row: number,
): number[] {
  const { kr, kb } = WEIGHTS[matrix]
  const lumaAt = (dx: number, dy: number) =>
    bytes[
      y.offset + Math.min(2 * row + dy, size.height - 1) * y.stride + Math.min(2 * column + dx, size.width - 1)
    ] as number
  const luma = (lumaAt(0, 0) + lumaAt(1, 0) + lumaAt(0, 1) + lumaAt(1, 1)) / 4
  const lit = fullRange ? luma / 255 : (luma - 16) / 219
  const [cb, cr] = [u, v].map(
    (p) => ((bytes[p.offset + row * p.stride + column * p.step] as number) - 128) / (fullRange ? 255 : 224),
  ) as [number, number]
  const red = lit + 2 * (1 - kr) * cr
  const blue = lit + 2 * (1 - kb) * cb
  const green = (lit - kr * red - kb * blue) / (1 - kr - kb)
  return [red, green, blue].map((c) => Math.min(255, Math.max(0, 255 * c)))
}

test(`halved pictures are within one level of the floating-point box filter, whatever the size, strides and coding (seed ${SEED})`, () => {
  const random = seeded(SEED)
  for (let round = 0; round < 60; round++) {
    const size = { width: random.integer(1, 41), height: random.integer(1, 41) }
    const planes = picture(random, size.width, size.height, round % 2 === 0)
    const coding = CODINGS[round % CODINGS.length] as YuvCoding
    const half = halfOf(size)
    const out = new Uint32Array(half.width * half.height + 8).fill(7)
    halveToRgba(planes, size, coding, out)
    const rgba = new Uint8Array(out.buffer)
    for (let row = 0; row < half.height; row++)
      for (let column = 0; column < half.width; column++) {
        const at = 4 * (row * half.width + column)
        const wanted = reference(planes, size, coding, column, row)
        wanted.forEach((value, i) => expect(Math.abs((rgba[at + i] as number) - value)).toBeLessThanOrEqual(1))
        expect(rgba[at + 3]).toBe(255)
      }
    expect([...out.subarray(half.width * half.height)], 'nothing written past the end').toEqual(Array(8).fill(7))
  }
})

test('black, white and grey are exactly that, in limited and full range', () => {
  for (const coding of CODINGS)
    for (const [luma, wanted] of coding.fullRange
      ? [
          [0, 0],
          [255, 255],
          [128, 128],
        ]
      : [
          [16, 0],
          [235, 255],
          [126, 128],
        ]) {
      const bytes = Uint8Array.from([luma, luma, luma, luma, 128, 128] as number[])
      const out = new Uint32Array(1)
      halveToRgba(
        {
          bytes,
          y: { offset: 0, stride: 2, step: 1 },
          u: { offset: 4, stride: 1, step: 1 },
          v: { offset: 5, stride: 1, step: 1 },
        },
        { width: 2, height: 2 },
        coding,
        out,
      )
      expect([...new Uint8Array(out.buffer)]).toEqual([wanted, wanted, wanted, 255])
    }
})
