import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { contains } from '../geometry/rect'
import type { InsetId, PanelId } from '../model/ids'
import { ANCHORS, type Inset } from '../model/inset'
import { arrangement as arrangementSchema, type Arrangement, type LayoutNode } from '../model/layout'
import { newPanel } from '../model/panel'
import { derive } from './arrangementFor'
import { moveSeam } from './seams'
import { divide, solve } from './solve'
import { twoBands } from './starting'

let made = 0
const leaf = (): LayoutNode => newPanel(`p${made++}` as PanelId, 'game')
const backdrop = { kind: 'colour', colour: '#000000' } as const
const bands = (n: number, gap = 0): Arrangement => ({
  backdrop,
  insets: [],
  tree: {
    kind: 'stack',
    axis: 'column',
    gap,
    children: Array.from({ length: n }, () => ({ extent: { kind: 'weight', weight: 1 }, node: leaf() })),
  },
})

function randomTree(random: ReturnType<typeof seeded>, depth: number): LayoutNode {
  if (depth === 0 || random.next() < 0.3)
    return random.next() < 0.15 ? { kind: random.pick(['titleArea', 'captionArea']) } : leaf()
  return {
    kind: 'stack',
    axis: random.pick(['column', 'row']),
    gap: random.pick([0, 0, 1, 2, 5, 40]),
    children: Array.from({ length: random.integer(1, 4) }, () => ({
      extent: random.pick([
        { kind: 'weight', weight: random.between(0.1, 10) } as const,
        { kind: 'weight', weight: 1 } as const,
        { kind: 'fixed', fraction: random.between(0.01, 0.9) } as const,
        { kind: 'shaped', proportion: random.between(0.2, 4), most: random.between(0.1, 1) } as const,
      ]),
      node: randomTree(random, depth - 1),
    })),
  }
}

function randomInset(random: ReturnType<typeof seeded>): Inset {
  return {
    id: `i${made++}` as InsetId,
    anchor: random.pick([...ANCHORS]),
    dx: random.between(-0.6, 0.6),
    dy: random.between(-0.6, 0.6),
    width: random.between(0.02, 1),
    proportion: random.between(0.1, 8),
    panel: newPanel(`p${made++}` as PanelId, 'face'),
  }
}

describe('solver', () => {
  it('divides equally to the pixel', () => {
    expect(solve(bands(3), { width: 2160, height: 3840 }).panels.map((p) => p.rect.height)).toEqual([1280, 1280, 1280])
    expect(solve(bands(4), { width: 1080, height: 1920 }).panels.map((p) => p.rect.height)).toEqual([
      480, 480, 480, 480,
    ])
    const spaced = divide(
      3840,
      4,
      bands(3).tree.kind === 'stack' ? [1, 1, 1].map((weight) => ({ kind: 'weight' as const, weight })) : [],
    )
    expect(spaced.gap).toBe(4)
    expect(spaced.sizes.reduce((a, b) => a + b, 0) + 8).toBe(3840)
  })

  it(`tiles every canvas exactly: even, inside, no gap but the gaps, no overlap (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 120; round++) {
      const canvas = { width: 2 * random.integer(32, 200), height: 2 * random.integer(32, 200) }
      const own = arrangementSchema.parse({
        tree: randomTree(random, 3),
        backdrop,
        insets: Array.from({ length: random.integer(0, 3) }, () => randomInset(random)),
      })
      // Derived arrangements have to tile as well.
      const tree = round % 2 === 0 ? own : derive(own, canvas)
      const solved = solve(tree, canvas)
      const panels = solved.panels.filter((p) => p.insetId === null)
      const { seams, areas } = solved
      const covered = new Uint8Array((canvas.width / 2) * (canvas.height / 2))
      const cover = (r: { x: number; y: number; width: number; height: number }) => {
        for (const v of [r.x, r.y, r.width, r.height]) expect(v % 2).toBe(0)
        for (let y = r.y / 2; y < (r.y + r.height) / 2; y++)
          for (let x = r.x / 2; x < (r.x + r.width) / 2; x++)
            covered[y * (canvas.width / 2) + x] = (covered[y * (canvas.width / 2) + x] ?? 0) + 1
      }
      panels.forEach((p) => cover(p.rect))
      areas.forEach((a) => cover(a.rect))
      seams.forEach((s) => cover(s.rect))
      expect(
        covered.every((n) => n === 1),
        `round ${round}: every 2 × 2 block covered once`,
      ).toBe(true)
      for (const { rect } of solved.panels)
        expect(contains({ x: 0, y: 0, ...canvas }, rect), `round ${round}: inside`).toBe(true)
      for (const inset of solved.panels.filter((p) => p.insetId !== null))
        for (const v of Object.values(inset.rect)) expect(v % 2).toBe(0)
      expect(solve(tree, canvas)).toEqual(solved)
    }
  })

  it(`gives more to a child that weighs more (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 300; round++) {
      const weights = Array.from({ length: random.integer(2, 6) }, () => random.between(0.2, 5))
      const extents = (w: number[]) => w.map((weight) => ({ kind: 'weight' as const, weight }))
      const length = 2 * random.integer(40, 2000)
      const before = divide(length, 0, extents(weights)).sizes
      const heavier = weights.map((w, i) => (i === 0 ? w * 1.5 : w))
      expect(divide(length, 0, extents(heavier)).sizes[0]).toBeGreaterThanOrEqual(before[0] ?? 0)
    }
  })

  it('refuses a canvas that no video can have', () => {
    expect(() => solve(bands(1), { width: 1081, height: 1920 })).toThrow(RangeError)
    expect(() => solve(bands(1), { width: 62, height: 64 })).toThrow(RangeError)
  })
})

describe('seams', () => {
  it('move to where they are dragged, to two pixels, and leave other bands alone', () => {
    const arrangement = bands(3)
    const canvas = { width: 1080, height: 1920 }
    const { seams } = solve(arrangement, canvas)
    const seam = seams[0]
    if (!seam) throw new Error('no seam')
    moveSeam(arrangement.tree, seam, 401)
    expect(solve(arrangement, canvas).panels.map((p) => p.rect.height)).toEqual([402, 878, 640])
  })

  it('stop before a band vanishes', () => {
    const arrangement = twoBands({ id: 'a' as PanelId, role: 'face' }, { id: 'b' as PanelId, role: 'game' }, 0.3)
    const canvas = { width: 1080, height: 1920 }
    const { seams } = solve(arrangement, canvas)
    if (!seams[0]) throw new Error('no seam')
    moveSeam(arrangement.tree, seams[0], -500)
    expect(solve(arrangement, canvas).panels.map((p) => p.rect.height)).toEqual([32, 1888])
  })
})
