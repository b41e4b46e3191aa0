import { describe, expect, it } from 'vitest'
import { seeded } from '../../../tests/support/seeded'
import { contains, type Rect } from '../geometry/rect'
import type { PathKey } from '../model/passage'
import type { RegionId } from '../model/ids'
import { newRegion } from '../model/region'
import { pathAt, withKey, withoutKey } from './cropPath'
import { pictureOutline } from './pictureOutline'
import { regionIn, shiftTo } from './regionIn'

const face = newRegion('face' as RegionId, 'face', 'Face', { x: 0.7, y: 0.7, width: 0.25, height: 0.25 })
const none = { regionShifts: [], cropPaths: [] }

describe('a region in one passage', () => {
  it('is the region itself where the passage says nothing about it', () => {
    expect(regionIn(none, face, 0)).toBe(face)
    expect(
      regionIn({ ...none, regionShifts: [{ regionId: 'other' as RegionId, dx: 0.1, dy: 0, scale: 1 }] }, face, 0),
    ).toBe(face)
  })

  it('lies where it was put, as large as it was made, and never beyond the frame', () => {
    const random = seeded(7).next
    for (let n = 0; n < 200; n++) {
      const scale = 0.2 + random() * 0.8
      const width = face.bounds.width * scale
      const height = face.bounds.height * scale
      const to = { x: random() * (1 - width), y: random() * (1 - height), width, height }
      const { bounds } = regionIn({ ...none, regionShifts: [shiftTo(face, to)] }, face, 0)
      for (const key of ['x', 'y', 'width', 'height'] as const) expect(bounds[key]).toBeCloseTo(to[key], 9)
    }
    const far = regionIn({ ...none, regionShifts: [{ regionId: face.id, dx: 1, dy: -1, scale: 3 }] }, face, 0).bounds
    expect(far.x).toBeGreaterThanOrEqual(0)
    expect(far.x + far.width).toBeLessThanOrEqual(1 + 1e-9)
    expect(far.y).toBeGreaterThanOrEqual(0)
  })

  it('takes its focus along', () => {
    const focused = { ...face, focus: { x: 0.8, y: 0.75, width: 0.05, height: 0.05 } }
    expect(
      regionIn({ ...none, regionShifts: [{ regionId: face.id, dx: -0.5, dy: 0, scale: 1 }] }, focused, 0).focus?.x,
    ).toBeCloseTo(0.3, 9)
    const larger = regionIn(
      { ...none, regionShifts: [{ regionId: face.id, dx: -0.3, dy: -0.3, scale: 2 }] },
      focused,
      0,
    )
    expect(contains(larger.bounds, larger.focus as Rect)).toBe(true)
    expect(((larger.focus?.x ?? 0) - larger.bounds.x) / larger.bounds.width).toBeCloseTo((0.8 - 0.7) / 0.25, 9)
  })

  it('has its focus on its crop path, inside its bounds', () => {
    const path = {
      regionId: face.id,
      keys: [
        { micros: 0, x: 0.8, y: 0.8, jump: true },
        { micros: 1_000_000, x: 0.2, y: 0.8, jump: false },
      ],
    }
    const at = (t: number) => regionIn({ ...none, cropPaths: [path] }, face, t).focus
    expect(at(0)?.x).toBeCloseTo(0.8, 5)
    expect(at(1_000_000)?.x).toBeCloseTo(0.7, 5)
  })
})

const keys: PathKey[] = [
  { micros: 0, x: 0.2, y: 0.5, jump: true },
  { micros: 1_000_000, x: 0.2, y: 0.5, jump: false },
  { micros: 2_000_000, x: 0.6, y: 0.5, jump: false },
  { micros: 3_000_000, x: 0.9, y: 0.1, jump: true },
]

describe('a crop path', () => {
  it('stands still outside its keys, eases between them, and jumps where a shot begins', () => {
    expect(pathAt(keys, -5)).toEqual({ x: 0.2, y: 0.5 })
    expect(pathAt(keys, 500_000).x).toBeCloseTo(0.2)
    expect(pathAt(keys, 1_500_000).x).toBeCloseTo(0.4)
    expect(pathAt(keys, 1_100_000).x).toBeLessThan(0.22)
    expect(pathAt(keys, 2_999_999)).toEqual({ x: 0.6, y: 0.5 })
    expect(pathAt(keys, 3_000_000)).toEqual({ x: 0.9, y: 0.1 })
    expect(pathAt(keys, 9_000_000)).toEqual({ x: 0.9, y: 0.1 })
    expect(() => pathAt([], 0)).toThrow(RangeError)
  })

  it('goes through a key that was set, and through all others as before', () => {
    const set = withKey(keys, 1_500_000, { x: 0.3, y: 0.3 })
    expect(set).toHaveLength(5)
    for (const k of [...keys, { micros: 1_500_000, x: 0.3, y: 0.3 }])
      expect(pathAt(set, k.micros)).toMatchObject({ x: k.x, y: k.y })
    expect(withKey(set, 1_505_000, { x: 0.31, y: 0.3 })).toHaveLength(5)
  })

  it('keeps a shot’s beginning when its first key is taken away, and always has a key', () => {
    const [first, ...rest] = withoutKey(keys, 0)
    expect(first).toEqual({ micros: 0, x: 0.2, y: 0.5, jump: true })
    expect(rest).toHaveLength(2)
    expect(withoutKey([keys[0] as PathKey], 0)).toHaveLength(1)
  })
})

describe('an outline in the panel', () => {
  const dest = { x: 0, y: 0, width: 400, height: 200 }
  const canvas = { width: 1080, height: 1920 }

  it('is nothing for a plain rectangle', () => {
    expect(pictureOutline({ mask: { kind: 'rectangle' }, border: null, shadow: null }, dest, canvas)).toBeNull()
  })

  it('rounds by the shorter side, fits an ellipse, and measures borders by the canvas', () => {
    expect(
      pictureOutline({ mask: { kind: 'rounded', radius: 0.25 }, border: null, shadow: null }, dest, canvas),
    ).toMatchObject({ radiusX: 50, radiusY: 50 })
    expect(
      pictureOutline(
        { mask: { kind: 'ellipse' }, border: { width: 0.01, colour: '#ffffff' }, shadow: null },
        dest,
        canvas,
      ),
    ).toMatchObject({ radiusX: 200, radiusY: 100, border: { width: 10.8 } })
  })
})
