import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { toEvenPixels, toFractions } from './evenGrid'
import { cropToFill, fitWhole } from './fit'
import { contains, pushInside, rectBetween, type Rect } from './rect'
import { GRIPS, moveRect, resizeRect } from './resize'

const frame: Rect = { x: 0, y: 0, width: 1920, height: 1080 }

describe('a rectangle between two corners', () => {
  it('is the same whichever comes first, and ends at the frame', () => {
    const small = { width: 100, height: 80 }
    expect(rectBetween({ x: 30, y: 50 }, { x: 10, y: 90 }, small)).toEqual({ x: 10, y: 50, width: 20, height: 30 })
    expect(rectBetween({ x: 10, y: 90 }, { x: 30, y: 50 }, small)).toEqual({ x: 10, y: 50, width: 20, height: 30 })
    expect(rectBetween({ x: 120, y: 10 }, { x: 140, y: 20 }, small)).toMatchObject({ width: 0, height: 10 })
  })
})

describe('crops', () => {
  it(`never leave their bounds and never stretch, and are centred where there is room (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let i = 0; i < 2000; i++) {
      const bounds = {
        x: random.between(0, 900),
        y: random.between(0, 500),
        width: random.between(2, 1000),
        height: random.between(2, 570),
      }
      const aspect = random.between(0.1, 10)
      const zoom = random.between(1, 8)
      const focus = { x: random.between(0, 1920), y: random.between(0, 1080) }
      const crop = cropToFill(bounds, aspect, focus, zoom)
      expect(contains(bounds, crop, 1e-6)).toBe(true)
      expect(crop.width / crop.height).toBeCloseTo(aspect, 6)
      const room = { x: focus.x - crop.width / 2, y: focus.y - crop.height / 2, width: crop.width, height: crop.height }
      if (contains(bounds, room, 0)) expect(crop.x).toBeCloseTo(room.x, 6)
    }
  })

  it('show all of a picture without stretching it', () => {
    expect(fitWhole({ x: 0, y: 0, width: 1080, height: 1920 }, 16 / 9)).toEqual({
      x: 0,
      y: 656.25,
      width: 1080,
      height: 607.5,
    })
  })
})

describe('even pixels', () => {
  it(`stay on the grid and inside the frame, and come back from fractions unchanged (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let i = 0; i < 2000; i++) {
      const size = { width: random.integer(64, 4000), height: random.integer(64, 3000) }
      const x = random.next()
      const y = random.next()
      const pixels = toEvenPixels({ x, y, width: random.next() * (1 - x), height: random.next() * (1 - y) }, size)
      for (const value of Object.values(pixels)) expect(value % 2).toBe(0)
      expect(pixels.width).toBeGreaterThanOrEqual(2)
      expect(contains({ x: 0, y: 0, ...size }, pixels)).toBe(true)
      expect(toEvenPixels(toFractions(pixels, size), size)).toEqual(pixels)
    }
  })

  it('serve a smaller recording of the same scene', () => {
    const bounds = toFractions({ x: 1400, y: 756, width: 480, height: 270 }, frame)
    expect(toEvenPixels(bounds, { width: 1280, height: 720 })).toEqual({ x: 934, y: 504, width: 320, height: 180 })
  })
})

describe('dragging', () => {
  it('stops at the frame when moved', () => {
    expect(moveRect({ x: 10, y: 10, width: 100, height: 100 }, -50, 2000, frame)).toEqual({
      x: 0,
      y: 980,
      width: 100,
      height: 100,
    })
    expect(pushInside({ x: -20, y: 0, width: 2000, height: 10 }, frame)).toEqual({
      x: -40,
      y: 0,
      width: 2000,
      height: 10,
    })
  })

  it(`keeps the opposite edge, the bounds, the least size, the proportion and the centre as asked (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let i = 0; i < 3000; i++) {
      const rect = {
        x: random.integer(0, 1000),
        y: random.integer(0, 500),
        width: random.integer(40, 900),
        height: random.integer(40, 500),
      }
      const grip = random.pick(GRIPS)
      const aspect = random.next() < 0.4 ? rect.width / rect.height : null
      const fromCentre = random.next() < 0.3
      const to = resizeRect(rect, grip, random.integer(-1500, 1500), random.integer(-900, 900), {
        bounds: frame,
        least: 16,
        aspect,
        fromCentre,
      })
      expect(contains(frame, to, 1e-6)).toBe(true)
      if (aspect) expect(to.width / to.height).toBeCloseTo(aspect, 6)
      else expect(Math.min(to.width, to.height)).toBeGreaterThanOrEqual(16)
      if (fromCentre) expect(to.x + to.width / 2).toBeCloseTo(rect.x + rect.width / 2, 6)
      else if (grip.includes('e')) expect(to.x).toBe(rect.x)
      else if (grip.includes('w')) expect(to.x + to.width).toBeCloseTo(rect.x + rect.width, 6)
    }
  })
})
