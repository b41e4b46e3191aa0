import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../../tests/support/seeded'
import { areaOf, intersection, type Rect } from '../../geometry/rect'
import { Background } from './background'
import { StillLines } from './lines'
import { CELLS, Motion } from './motion'
import { StillnessMeter, type Stillness } from './stillness'
import { Edges, tilesOf, trim } from './tiles'

const WHOLE: Rect = { x: 0, y: 0, width: 320, height: 180 }

/** Pictures of something that changes all over, on a plain ground, seen twelve times. */
function watch(pictures: readonly Rect[], ground: number, random: ReturnType<typeof seeded>): Stillness {
  const meter = new StillnessMeter(WHOLE)
  for (let n = 0; n < 12; n++) {
    const luma = new Uint8Array(areaOf(WHOLE)).fill(ground)
    for (const { x, y, width, height } of pictures)
      for (let row = y; row < y + height; row++)
        for (let column = x; column < x + width; column++)
          luma[row * WHOLE.width + column] = 70 + Math.floor(random.next() * 150)
    meter.add(luma)
  }
  return meter.result()
}

/** Rows of unequal height with unequal pictures in each, `gutter` px apart; every one large enough to be a tile. */
function unevenGrid(random: ReturnType<typeof seeded>, gutter: number): Rect[] {
  const heights = random.pick([[150], [70, 74], [90, 50], [44, 48, 46]])
  const tiles: Rect[] = []
  let y = random.integer(4, 8)
  for (const height of heights) {
    let x = random.integer(4, 9)
    while (x + 60 < WHOLE.width) {
      const width = Math.min(random.integer(46, 130), WHOLE.width - 6 - x)
      if (width < 40) break
      tiles.push({ x, y, width, height })
      x += width + gutter
    }
    y += height + gutter
  }
  return tiles.filter((t) => t.y + t.height <= WHOLE.height - 2)
}

const linesOf = (stillness: Stillness) => ({
  upright: new StillLines(stillness, 'x'),
  level: new StillLines(stillness, 'y'),
  edges: new Edges(stillness),
  isLive: () => true,
})
const inOrder = (rects: readonly Rect[]) => [...rects].sort((a, b) => a.y - b.y || a.x - b.x)

describe('pictures side by side', () => {
  it(`are parted exactly along the ground between them, however uneven (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 25; round++) {
      const ground = random.pick([0, 16, 30, 45])
      const tiles = unevenGrid(random, random.integer(2, 12))
      const stillness = watch(tiles, ground, random)
      const [background] = Background.candidates(stillness)
      if (!background) throw new Error(`round ${round}: no ground found`)
      expect(Math.abs(background.luma - ground)).toBeLessThanOrEqual(1)
      expect(inOrder(tilesOf(WHOLE, background, linesOf(stillness), true)), `round ${round}`).toEqual(inOrder(tiles))
    }
  })

  it(`never overlap and never leave the frame, whatever the ground is taken for (seed ${SEED})`, () => {
    const random = seeded(SEED + 1)
    for (let round = 0; round < 15; round++) {
      const stillness = watch(unevenGrid(random, random.integer(0, 6)), random.integer(0, 255), random)
      for (const background of [null, ...Background.candidates(stillness)]) {
        const tiles = tilesOf(WHOLE, background, linesOf(stillness), random.next() < 0.5)
        for (const [n, a] of tiles.entries()) {
          expect(intersection(a, WHOLE)).toEqual(a)
          for (const b of tiles.slice(n + 1)) expect(intersection(a, b)).toBeNull()
        }
      }
    }
  })

  it('leave nothing where all is ground', () => {
    const stillness = watch([], 30, seeded(SEED))
    const [background] = Background.candidates(stillness)
    expect(background && trim(WHOLE, background, new Edges(stillness))).toBeNull()
    expect(background && tilesOf(WHOLE, background, linesOf(stillness), true)).toEqual([])
  })
})

describe('motion', () => {
  it('tells what keeps moving from what rests and jumps', () => {
    const frames = Array.from({ length: 10 }, (_, n) => {
      const cells = new Uint8Array(areaOf(CELLS)).fill(100)
      for (let y = 0; y < CELLS.height; y++)
        for (let x = 0; x < CELLS.width; x++) {
          if (x < 48 && (x + n * 5) % 10 < 5) cells[y * CELLS.width + x] = 200
          if (x >= 48 && n >= 5) cells[y * CELLS.width + x] = 160
        }
      return cells
    })
    const motion = new Motion(frames, { width: 1920, height: 1080 })
    const left = motion.within({ x: 0, y: 0, width: 960, height: 1080 })
    const right = motion.within({ x: 960, y: 0, width: 960, height: 1080 })
    expect(left.usual).toBeGreaterThan(0.9)
    expect(left.restful).toBe(0)
    expect(right).toMatchObject({ usual: 0, most: 1 })
    expect(right.restful).toBeCloseTo(8 / 9, 9)
    expect(
      new Motion(frames.slice(0, 1), { width: 1920, height: 1080 }).within({ x: 0, y: 0, width: 9, height: 9 }),
    ).toEqual({ usual: 0, most: 0, restful: 1 })
  })
})
