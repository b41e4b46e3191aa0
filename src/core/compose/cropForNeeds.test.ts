import { expect, it } from 'vitest'
import { seeded } from '../../../tests/support/seeded'
import { contains, intersection, type Rect } from '../geometry/rect'
import { cropForNeeds, type CropWish, type SeenThing } from './cropForNeeds'

const BOUNDS: Rect = { x: 100, y: 50, width: 1600, height: 900 }
const wish = (as: Partial<CropWish> = {}): CropWish => ({
  bounds: BOUNDS,
  proportion: 9 / 16,
  zoom: 1,
  natural: { x: 900, y: 500 },
  regionId: 'own',
  elsewhere: new Set(),
  isRound: false,
  ...as,
})
const thing = (kind: SeenThing['kind'], rect: Rect, regionId = 'own'): SeenThing => ({
  kind,
  rect,
  regionId,
  ofPerson: kind === 'head' || kind === 'rest',
})

it('is the largest one about its natural place where there is nothing to hold or leave out', () => {
  const crop = cropForNeeds(wish(), [])
  expect(crop).toEqual({ x: 900 - 506.25 / 2, y: 50, width: 506.25, height: 900 })
})

it('holds a head with room above it, wherever it is', () => {
  const random = seeded(20261130)
  for (let n = 0; n < 200; n++) {
    const height = random.between(150, 420)
    const head = {
      x: random.between(100, 1300),
      y: random.between(100, 940 - height),
      width: height * 0.8,
      height,
    }
    const crop = cropForNeeds(wish({ proportion: random.pick([9 / 16, 1, 16 / 9, 2.2]) }), [thing('head', head)])
    const where = JSON.stringify({ head, crop })
    expect(contains(BOUNDS, crop, 1e-6), where).toBe(true)
    if (crop.height > height * 1.2 && crop.width > head.width) expect(contains(crop, head, 0.5), where).toBe(true)
  }
})

it('centres a head in a round window', () => {
  const head = { x: 300, y: 300, width: 160, height: 200 }
  const { x, y, width, height } = cropForNeeds(wish({ proportion: 1, zoom: 2, isRound: true }), [thing('head', head)])
  expect(Math.abs(x + width / 2 - 380)).toBeLessThan(5)
  expect(Math.abs(y + height / 2 - 400)).toBeLessThan(5)
})

it('leaves out what another panel shows, tighter where that is needed', () => {
  const facecam = { x: 1300, y: 600, width: 400, height: 350 }
  const things = [thing('rest', facecam, 'face'), thing('head', { x: 1400, y: 650, width: 150, height: 190 }, 'face')]
  const wide = wish({ proportion: 4 / 3, elsewhere: new Set(['face']) })
  const crop = cropForNeeds(wide, things)
  expect(intersection(crop, facecam)?.width ?? 0).toBeLessThan(40)
  expect(contains(BOUNDS, crop, 1e-6)).toBe(true)
  // Without the panel for the face it is part of the picture, and whole.
  const alone = cropForNeeds({ ...wide, elsewhere: new Set() }, things)
  expect(contains(alone, things[1]?.rect as Rect, 0.5)).toBe(true)
})

it('shows all of a list or nothing of it', () => {
  const random = seeded(7)
  for (let n = 0; n < 100; n++) {
    const list = { x: random.between(100, 1400), y: random.between(50, 700), width: 280, height: 160 }
    const crop = cropForNeeds(wish({ proportion: 9 / 16 }), [thing('read', list, 'list')])
    const both = intersection(crop, list)
    const part = both ? (both.width * both.height) / (list.width * list.height) : 0
    expect(part < 0.09 || part > 0.99, JSON.stringify({ list, crop, part })).toBe(true)
  }
})

it('is the same for the same, and for a thing moved by a little moves by a little', () => {
  const at = (x: number) => cropForNeeds(wish(), [thing('head', { x, y: 200, width: 200, height: 260 })])
  expect(at(500)).toEqual(at(500))
  for (let x = 300; x < 1200; x += 10) expect(Math.abs(at(x + 10).x - at(x).x)).toBeLessThan(14)
})
