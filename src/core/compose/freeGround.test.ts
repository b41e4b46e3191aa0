import { expect, it } from 'vitest'
import { seeded } from '../../../tests/support/seeded'
import { intersection, type Rect } from '../geometry/rect'
import { usualArea } from '../layout/wordAreas'
import { STANDARD_SHAPES } from '../model/shape'
import { BAD_PLACE, costOf, FreeGround, type Kept } from './freeGround'

const TALL = { width: 1080, height: 1920 }
const head = (rect: Rect): Kept => ({ rect, matters: 1 })

it('leaves words where they usually are when nothing is in their way', () => {
  const ground = new FreeGround(TALL, [head({ x: 300, y: 1000, width: 300, height: 150 })])
  expect(ground.placeWords('titleArea')).toEqual({ rect: usualArea('titleArea', TALL), cost: 0 })
})

it('never has words or marks on a head where there is a place without one', () => {
  const random = seeded(20261130)
  for (const shape of STANDARD_SHAPES)
    for (let n = 0; n < 60; n++) {
      const heads = Array.from({ length: random.integer(1, 3) }, () => {
        const height = random.between(0.12, 0.3) * Math.min(shape.width, shape.height)
        const x = random.between(0, shape.width - height)
        return head({ x, y: random.between(0, shape.height - height), width: 0.8 * height, height })
      })
      const ground = new FreeGround(shape, heads)
      const placed = (['titleArea', 'captionArea'] as const).map((kind) => {
        const place = ground.placeWords(kind)
        ground.add(place.rect, 1)
        return place
      })
      placed.push(ground.placeMark({ x: 100, y: 100, width: 200, height: 60 }))
      for (const [i, { rect, cost }] of placed.entries()) {
        const where = JSON.stringify({ shape: shape.id, n, rect, heads })
        expect(rect.x >= 0 && rect.x + rect.width <= shape.width, where).toBe(true)
        expect(rect.y >= 0 && rect.y + rect.height <= shape.height, where).toBe(true)
        if (cost >= BAD_PLACE) continue
        for (const other of [...heads.map((h) => h.rect), ...placed.slice(0, i).map((p) => p.rect)]) {
          const both = intersection(rect, other)
          expect(!both || both.width <= 3 || both.height <= 3, where).toBe(true)
        }
      }
    }
})

it('says when there is no good place, and takes the least bad one', () => {
  const everywhere = new FreeGround(TALL, [head({ x: 0, y: 0, ...TALL })])
  expect(everywhere.placeWords('captionArea').cost).toBeGreaterThanOrEqual(BAD_PLACE)
  expect(costOf({ x: 0, y: 0, width: 10, height: 10 }, [head({ x: 5, y: 0, width: 5, height: 10 })])).toBeCloseTo(1)
})

it('judges a place as it would be judged part by part, to a cell', () => {
  const random = seeded(3)
  const soft = Array.from({ length: 6 }, () => ({
    rect: {
      x: random.between(0, 800),
      y: random.between(0, 1500),
      width: random.between(100, 280),
      height: random.between(100, 400),
    },
    matters: 0.1,
  }))
  const ground = new FreeGround(TALL, soft)
  for (let n = 0; n < 100; n++) {
    const rect = { x: random.between(0, 500), y: random.between(0, 1400), width: 500, height: 400 }
    expect(Math.abs(ground.costAt(rect) - costOf(rect, soft))).toBeLessThan(0.05)
  }
})
