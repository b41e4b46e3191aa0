import { beforeAll, describe, expect, it } from 'vitest'
import { compiledKernel } from '../../../tests/support/kernel'
import { run } from '../../../tests/support/ffmpeg'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { FilterKind } from '@/core/picture/filterTable'
import type { Kernel } from './kernel'
import { GUARD_BYTES, PlaneHeap } from './planeHeap'
import type { Plane } from './planes'
import { Resampler, type Axis } from './resampler'

let kernel: Kernel
let heap: PlaneHeap
let resampler: Resampler
beforeAll(async () => {
  kernel = await compiledKernel()
  heap = new PlaneHeap(kernel)
  resampler = new Resampler(heap)
})

const POISON = 0xa5

/** A plane between bytes that nobody may write, and that must not matter. */
function guarded(
  width: number,
  height: number,
  stride: number,
  fill: (i: number) => number,
  poison = POISON,
): Plane & { isUntouched: () => boolean } {
  const bytes = stride * height + 2 * GUARD_BYTES
  const begin = heap.take(bytes)
  const all = heap.bytes(begin, bytes)
  all.fill(poison)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) all[GUARD_BYTES + y * stride + x] = fill(y * width + x)
  const isUntouched = () => {
    const now = heap.bytes(begin, bytes)
    for (let i = 0; i < bytes; i++) {
      const inside = i - GUARD_BYTES
      if ((inside < 0 || inside >= stride * (height - 1) + width || inside % stride >= width) && now[i] !== poison)
        return false
    }
    return true
  }
  return { at: begin + GUARD_BYTES, stride, width, height, isUntouched }
}

const read = ({ at, stride, width, height }: Plane) =>
  Array.from({ length: height }, (_, y) => [...heap.bytes(at + y * stride, width)])

/** How much each sample counts, in float: an own account of the three filters, not the tables'. */
function weights({ kind, from, step, first, samples, deviation = 1 }: Axis, n: number): Map<number, number> {
  const middle = from + n * step - first
  const reach = Math.abs(step)
  const found = new Map<number, number>()
  const take = (i: number, w: number) => {
    const at = Math.max(0, Math.min(samples - 1, i))
    if (w !== 0) found.set(at, (found.get(at) ?? 0) + w)
  }
  const near = Math.floor(middle)
  if (kind === 'bilinear') [1 - (middle - near), middle - near].forEach((w, i) => take(near + i, w))
  if (kind === 'bicubic')
    for (let i = near - 1; i <= near + 2; i++) {
      const d = Math.abs(i - middle)
      take(i, bicubic(d))
    }
  if (kind === 'area') {
    const [low, high] = [middle - Math.max(1, reach) / 2, middle + Math.max(1, reach) / 2]
    for (let i = Math.floor(low - 1); i <= Math.ceil(high + 1); i++)
      take(i, Math.max(0, Math.min(i + 0.5, high) - Math.max(i - 0.5, low)))
  }
  if (kind === 'gauss')
    for (let i = Math.ceil(middle - 3 * deviation); i <= middle + 3 * deviation; i++)
      take(i, Math.exp(-((i - middle) ** 2) / (2 * deviation ** 2)))
  const sum = [...found.values()].reduce((a, b) => a + b, 0)
  return new Map([...found].map(([i, w]) => [i, w / sum]))
}

function inFloat(src: number[][], across: Axis, down: Axis): number[][] {
  return Array.from({ length: down.outputs }, (_, y) =>
    Array.from({ length: across.outputs }, (_, x) => {
      let sum = 0
      for (const [row, wy] of weights(down, y))
        for (const [column, wx] of weights(across, x))
          sum += wy * wx * (src[row + down.first]?.[column + across.first] ?? NaN)
      return Math.max(0, Math.min(255, sum))
    }),
  )
}

const worst = (a: number[][], b: number[][]) =>
  Math.max(...a.flatMap((row, y) => row.map((v, x) => Math.abs(v - (b[y]?.[x] ?? NaN)))))

describe('resample', () => {
  it('comes within one of arithmetic in float, whatever the sizes, strides, crops, mirrors and filters; nothing outside is written or counts', () => {
    const random = seeded(SEED).next
    const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1))
    for (let round = 0; round < 240; round++) {
      const kind = (['bilinear', 'bicubic', 'area', 'gauss'] as const)[round % 4] as FilterKind
      const width = whole(2, round % 5 === 0 ? 3 : 70)
      const height = whole(2, round % 7 === 0 ? 3 : 70)
      const values = Uint8Array.from({ length: width * height }, () =>
        random() < 0.3 ? 255 * Math.round(random()) : random() * 256,
      )
      const axis = (samples: number): Axis => {
        const first = whole(0, samples - 1)
        const left = samples - first
        const cropFrom = first + random() * 0.99 * Math.min(1, left - 1)
        const cropLength = Math.max(0.5, (samples - cropFrom) * (0.3 + 0.7 * random()))
        const outputs = whole(1, 60)
        const step = cropLength / outputs
        const mirrored = random() < 0.4
        const count = Math.max(1, Math.min(left, Math.ceil(cropFrom + cropLength) - first))
        return {
          kind,
          outputs,
          first,
          samples: count,
          from: mirrored ? cropFrom + cropLength - 0.5 * step - 0.5 : cropFrom + 0.5 * step - 0.5,
          step: mirrored ? -step : step,
          deviation: 0.5 + 3 * random(),
        }
      }
      const [across, down] = [axis(width), axis(height)]
      const src = guarded(width, height, width + whole(0, 20), (i) => values[i] ?? 0, round % 2 ? 0xff : 0)
      const dst = guarded(across.outputs, down.outputs, across.outputs + whole(0, 20), () => 7)
      resampler.run(src, dst, across, down)
      const expected = inFloat(
        Array.from({ length: height }, (_, y) => [...values.subarray(y * width, (y + 1) * width)]),
        across,
        down,
      )
      expect(worst(read(dst), expected), `${kind} ${width}×${height} → ${across.outputs}×${down.outputs}`).toBeLessThan(
        1.01,
      )
      expect(dst.isUntouched() && src.isUntouched()).toBe(true)
    }
  })

  it('is ffmpeg’s scaler to 50 dB and more on luma: enlarged and reduced, by two neighbours, four, and area', () => {
    const source = { width: 540, height: 656 }
    const noise = run('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=${source.width}x${source.height}:d=0.04`,
      '-vf',
      'noise=alls=20:allf=t:all_seed=5,format=gray',
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-',
    ])
    for (const [flags, kind, width, height] of [
      ['bilinear', 'bilinear', 1080, 1312],
      ['bicubic', 'bicubic', 1080, 1312],
      ['bicubic', 'bicubic', 1080, 1000],
      ['area', 'area', 200, 240],
      ['area', 'area', 133, 251],
    ] as const) {
      const expected = run(
        'ffmpeg',
        [
          '-v',
          'error',
          '-f',
          'rawvideo',
          '-pix_fmt',
          'gray',
          '-s',
          `${source.width}x${source.height}`,
          '-i',
          '-',
          '-vf',
          `scale=${width}:${height}:flags=${flags}+accurate_rnd+full_chroma_int`,
          '-f',
          'rawvideo',
          '-',
        ],
        noise,
      )
      const src = guarded(source.width, source.height, source.width, (i) => noise[i] ?? 0)
      const dst = guarded(width, height, width, () => 0)
      const axis = (samples: number, outputs: number): Axis => ({
        kind,
        outputs,
        from: (0.5 * samples) / outputs - 0.5,
        step: samples / outputs,
        first: 0,
        samples,
      })
      resampler.run(src, dst, axis(source.width, width), axis(source.height, height))
      const made = heap.bytes(dst.at, width * height)
      let squares = 0
      for (let i = 0; i < made.length; i++) squares += ((made[i] ?? 0) - (expected[i] ?? 0)) ** 2
      expect(10 * Math.log10(255 ** 2 / (squares / made.length)), `${flags} to ${width}×${height}`).toBeGreaterThan(50)
    }
  })
})

describe('laying over and mixing', () => {
  const random = seeded(SEED + 1).next
  const bytes = (n: number) => Uint8Array.from({ length: n }, () => random() * 256)
  const sized = () => [2 + Math.floor(random() * 60), 2 + Math.floor(random() * 20)] as const

  it('layOver adds what is premultiplied to what shows through, inside its spans only', () => {
    for (let round = 0; round < 60; round++) {
      const [width, height] = sized()
      const [under, alpha] = [bytes(width * height), bytes(width * height)]
      const over = alpha.map((a) => random() * a)
      const spans = new Uint32Array(2 * height)
      for (let y = 0; y < height; y++) {
        const from = Math.floor(random() * width)
        spans.set([from, from + Math.floor(random() * (width - from + 1))], 2 * y)
      }
      const dst = guarded(width, height, width + 5, (i) => under[i] ?? 0)
      const src = guarded(width, height, width, (i) => over[i] ?? 0)
      const cover = guarded(width, height, width, (i) => alpha[i] ?? 0)
      kernel.layOver(dst.at, dst.stride, src.at, cover.at, width, heap.put(spans), height)
      const expected = Array.from({ length: height }, (_, y) =>
        Array.from({ length: width }, (_, x) => {
          const i = y * width + x
          const inside = x >= (spans[2 * y] ?? 0) && x < (spans[2 * y + 1] ?? 0)
          return inside
            ? Math.min(255, (over[i] ?? 0) + ((under[i] ?? 0) * (255 - (alpha[i] ?? 0))) / 255)
            : (under[i] ?? 0)
        }),
      )
      expect(worst(read(dst), expected)).toBeLessThanOrEqual(0.51)
      expect(dst.isUntouched()).toBe(true)
    }
  })

  it('mix and tint weigh by a mask, or by one opacity', () => {
    for (let round = 0; round < 60; round++) {
      const [width, height] = sized()
      const [under, over, mask] = [bytes(width * height), bytes(width * height), bytes(width * height)]
      const opacity = Math.floor(random() * 256)
      const dst = () => guarded(width, height, width + 3, (i) => under[i] ?? 0)
      const src = guarded(width, height, width, (i) => over[i] ?? 0)
      const cover = guarded(width, height, width, (i) => mask[i] ?? 0)
      const expected = (by: (i: number) => number, value: (i: number) => number) =>
        Array.from({ length: height }, (_, y) =>
          Array.from(
            { length: width },
            (_, x) =>
              (value(y * width + x) * by(y * width + x) + (under[y * width + x] ?? 0) * (255 - by(y * width + x))) /
              255,
          ),
        )
      const [masked, even, tinted] = [dst(), dst(), dst()]
      kernel.mix(masked.at, masked.stride, src.at, width, cover.at, width, 0, width, height)
      kernel.mix(even.at, even.stride, src.at, width, 0, 0, opacity, width, height)
      kernel.tint(tinted.at, tinted.stride, 90, opacity, width, height)
      expect(
        worst(
          read(masked),
          expected(
            (i) => mask[i] ?? 0,
            (i) => over[i] ?? 0,
          ),
        ),
      ).toBeLessThanOrEqual(0.51)
      expect(
        worst(
          read(even),
          expected(
            () => opacity,
            (i) => over[i] ?? 0,
          ),
        ),
      ).toBeLessThanOrEqual(0.51)
      expect(
        worst(
          read(tinted),
          expected(
            () => opacity,
            () => 90,
          ),
        ),
      ).toBeLessThanOrEqual(0.51)
      expect([masked, even, tinted].every((p) => p.isUntouched())).toBe(true)
    }
  })

  it('transpose and split move every sample to its place, whatever the size', () => {
    for (let round = 0; round < 40; round++) {
      const [width, height] = sized()
      const values = bytes(2 * width * height)
      const src = guarded(width, height, width + 7, (i) => values[i] ?? 0)
      const lying = guarded(height, width, height + 3, () => 0)
      kernel.transpose(lying.at, lying.stride, src.at, src.stride, width, height)
      expect(read(lying)).toEqual(
        Array.from({ length: width }, (_, x) => Array.from({ length: height }, (_, y) => values[y * width + x])),
      )
      const pairs = guarded(2 * width, height, 2 * width, (i) => values[i] ?? 0)
      const [first, second] = [guarded(width, height, width + 1, () => 0), guarded(width, height, width + 1, () => 0)]
      kernel.split(first.at, second.at, width + 1, pairs.at, 2 * width, width, height)
      expect(read(first)).toEqual(
        Array.from({ length: height }, (_, y) => Array.from({ length: width }, (_, x) => values[2 * (y * width + x)])),
      )
      expect(read(second)).toEqual(
        Array.from({ length: height }, (_, y) =>
          Array.from({ length: width }, (_, x) => values[2 * (y * width + x) + 1]),
        ),
      )
      expect([lying, first, second].every((p) => p.isUntouched())).toBe(true)
    }
  })

  it('premultiplied gives BT.709 in limited range with its alpha', () => {
    for (let round = 0; round < 30; round++) {
      const [width, height] = [2 * (1 + Math.floor(random() * 12)), 2 * (1 + Math.floor(random() * 8))]
      const rgba = bytes(4 * width * height)
      const at = heap.take(rgba.length)
      heap.bytes(at, rgba.length).set(rgba)
      const plane = (w: number, h: number) => guarded(w, h, w, () => 0)
      const [luma, alpha, blue, red, half] = [
        plane(width, height),
        plane(width, height),
        plane(width / 2, height / 2),
        plane(width / 2, height / 2),
        plane(width / 2, height / 2),
      ]
      kernel.premultiplied(at, width, height, luma.at, alpha.at, blue.at, red.at, half.at)
      const px = (x: number, y: number) =>
        [...rgba.subarray(4 * (y * width + x), 4 * (y * width + x) + 4)] as [number, number, number, number]
      const y709 = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b
      const each = <T>(w: number, h: number, of: (x: number, y: number) => T) =>
        Array.from({ length: h }, (_, y) => Array.from({ length: w }, (_, x) => of(x, y)))
      expect(
        worst(
          read(luma),
          each(width, height, (x, y) => {
            const [r, g, b, a] = px(x, y)
            return ((16 + (219 * y709(r, g, b)) / 255) * a) / 255
          }),
        ),
      ).toBeLessThan(1.01)
      expect(read(alpha)).toEqual(each(width, height, (x, y) => px(x, y)[3]))
      const square = (x: number, y: number) => [
        px(2 * x, 2 * y),
        px(2 * x + 1, 2 * y),
        px(2 * x, 2 * y + 1),
        px(2 * x + 1, 2 * y + 1),
      ]
      const mean = (x: number, y: number, of: 'blue' | 'red') => {
        const four = square(x, y)
        const a = four.reduce((s, p) => s + p[3], 0)
        if (a === 0) return 0
        const [r, g, b] = [0, 1, 2].map((c) => four.reduce((s, p) => s + (p[c] ?? 0) * p[3], 0) / a) as [
          number,
          number,
          number,
        ]
        const difference = of === 'blue' ? (b - y709(r, g, b)) / 1.8556 : (r - y709(r, g, b)) / 1.5748
        return ((128 + (224 * difference) / 255) * (a / 4)) / 255
      }
      expect(
        worst(
          read(blue),
          each(width / 2, height / 2, (x, y) => mean(x, y, 'blue')),
        ),
      ).toBeLessThan(1.3)
      expect(
        worst(
          read(red),
          each(width / 2, height / 2, (x, y) => mean(x, y, 'red')),
        ),
      ).toBeLessThan(1.3)
      expect(
        worst(
          read(half),
          each(width / 2, height / 2, (x, y) => square(x, y).reduce((s, p) => s + p[3], 0) / 4),
        ),
      ).toBeLessThan(0.51)
      expect([luma, alpha, blue, red, half].every((p) => p.isUntouched())).toBe(true)
    }
  })
})

/** The weight of a sample `d` away. */
function bicubic(d: number): number {
  if (d < 1) return 1 - 2.4 * d ** 2 + 1.4 * d ** 3
  return d < 2 ? 2.4 - 4.8 * d + 3 * d ** 2 - 0.6 * d ** 3 : 0
}
