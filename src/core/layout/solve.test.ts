import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { PanelId } from '../model/ids'
import { arrangement as arrangementSchema, type Arrangement, type LayoutNode } from '../model/layout'
import { moveSeam } from './seams'
import { divide, solve } from './solve'
import { twoBands } from './starting'

let made = 0
const leaf = (): LayoutNode => ({ kind: 'panel', id: `p${made++}` as PanelId, role: 'game', fit: 'fill', zoom: 1 })
const backdrop = { kind: 'colour', colour: '#000000' } as const
const bands = (n: number, gap = 0): Arrangement => ({ backdrop, tree: { kind: 'stack', axis: 'column', gap, children: Array.from({ length: n }, () => ({ extent: { kind: 'weight', weight: 1 }, node: leaf() })) } })

function randomTree(random: ReturnType<typeof seeded>, depth: number): LayoutNode {
  if (depth === 0 || random.next() < 0.3) return leaf()
  return {
    kind: 'stack',
    axis: random.pick(['column', 'row']),
    gap: random.pick([0, 0, 1, 2, 5, 40]),
    children: Array.from({ length: random.integer(1, 4) }, () => ({
      extent: random.next() < 0.7 ? { kind: 'weight', weight: random.between(0.1, 10) } : { kind: 'fixed', fraction: random.between(0.01, 0.9) },
      node: randomTree(random, depth - 1),
    })),
  }
}

describe('solver', () => {
  it('divides equally to the pixel', () => {
    expect(solve(bands(3), { width: 2160, height: 3840 }).panels.map((p) => p.rect.height)).toEqual([1280, 1280, 1280])
    expect(solve(bands(4), { width: 1080, height: 1920 }).panels.map((p) => p.rect.height)).toEqual([480, 480, 480, 480])
    const spaced = divide(3840, 4, bands(3).tree.kind === 'stack' ? [1, 1, 1].map((weight) => ({ kind: 'weight', weight })) : [])
    expect(spaced.gap).toBe(4)
    expect(spaced.sizes.reduce((a, b) => a + b, 0) + 8).toBe(3840)
  })

  it(`tiles every canvas exactly: even, inside, no gap but the gaps, no overlap (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 120; round++) {
      const canvas = { width: 2 * random.integer(32, 200), height: 2 * random.integer(32, 200) }
      const tree = arrangementSchema.parse({ tree: randomTree(random, 3), backdrop })
      const { panels, seams } = solve(tree, canvas)
      const covered = new Uint8Array((canvas.width / 2) * (canvas.height / 2))
      const cover = (r: { x: number; y: number; width: number; height: number }) => {
        for (const v of [r.x, r.y, r.width, r.height]) expect(v % 2).toBe(0)
        for (let y = r.y / 2; y < (r.y + r.height) / 2; y++) for (let x = r.x / 2; x < (r.x + r.width) / 2; x++) covered[y * (canvas.width / 2) + x] = (covered[y * (canvas.width / 2) + x] ?? 0) + 1
      }
      panels.forEach((p) => cover(p.rect))
      seams.forEach((s) => cover(s.rect))
      expect(covered.every((n) => n === 1), `round ${round}: every 2 × 2 block covered once`).toBe(true)
      expect(solve(tree, canvas)).toEqual({ panels, seams })
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
    const { seams, panels } = solve(arrangement, canvas)
    const seam = seams[0]
    if (!seam) throw new Error('no seam')
    moveSeam(arrangement.tree, seam, panels.map((p) => p.rect.height), 401)
    expect(solve(arrangement, canvas).panels.map((p) => p.rect.height)).toEqual([402, 878, 640])
  })

  it('stop before a band vanishes', () => {
    const arrangement = twoBands({ id: 'a' as PanelId, role: 'face' }, { id: 'b' as PanelId, role: 'game' }, 0.3)
    const canvas = { width: 1080, height: 1920 }
    const { seams, panels } = solve(arrangement, canvas)
    if (!seams[0]) throw new Error('no seam')
    moveSeam(arrangement.tree, seams[0], panels.map((p) => p.rect.height), -500)
    expect(solve(arrangement, canvas).panels.map((p) => p.rect.height)).toEqual([32, 1888])
  })
})
