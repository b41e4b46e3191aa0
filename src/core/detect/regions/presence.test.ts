import { describe, expect, it } from 'vitest'
import { seeded } from '../../../../tests/support/seeded'
import { pathAt } from '../../compose/cropPath'
import type { Point, Rect } from '../../geometry/rect'
import { followPath } from './follow'
import { movingSubjects } from './moving'
import { presenceOf } from './presence'
import { salientPoint } from './salient'
import { subjectsOf } from './subjects'

const EVERY = 250_000
const bounds: Rect = { x: 0.6, y: 0.6, width: 0.3, height: 0.3 }
const faceAt = (x: number, y: number): Rect => ({ x: x - 0.05, y: y - 0.08, width: 0.1, height: 0.16 })

describe('presence', () => {
  const samples = Array.from({ length: 80 }, (_, i) => {
    const micros = (i + 0.5) * EVERY
    const leaning = micros >= 8e6 && micros < 11e6
    return { micros, bounds, subject: i === 20 ? null : faceAt(leaning ? 0.9 : 0.75, 0.75) }
  })

  it('tells when somebody is not inside, to a sample, and passes over a single sample without a face', () => {
    const { share, outside } = presenceOf(samples, EVERY)
    expect(outside).toHaveLength(1)
    expect(Math.abs((outside[0]?.fromMicros ?? 0) - 8e6)).toBeLessThanOrEqual(EVERY)
    expect(Math.abs((outside[0]?.toMicros ?? 0) - 11e6)).toBeLessThanOrEqual(EVERY)
    expect(share).toBeCloseTo(1 - 12 / 80)
  })

  it('passes over a single sample inside while somebody is not', () => {
    const back = samples.map((s, i) => (i === 36 ? { ...s, subject: faceAt(0.75, 0.75) } : s))
    expect(presenceOf(back, EVERY)).toEqual(presenceOf(samples, EVERY))
  })

  it('gives the least that holds the subject throughout, which then holds it', () => {
    const { smallest } = presenceOf(samples, EVERY)
    expect(smallest).not.toBeNull()
    expect(
      presenceOf(
        samples.map((s) => ({ ...s, bounds: smallest as Rect })),
        EVERY,
      ).share,
    ).toBe(1)
    expect(smallest?.x).toBeCloseTo(0.7)
  })

  it('counts a subject that is gone for longer as outside', () => {
    const gone = samples.map((s, i) => (i >= 60 && i < 66 ? { ...s, subject: null } : s))
    expect(presenceOf(gone, EVERY).outside[1]).toEqual({ fromMicros: 60.5 * EVERY, toMicros: 66.5 * EVERY })
  })

  it('judges each sample by where the region lay then', () => {
    const elsewhere = { x: 0.1, y: 0.1, width: 0.3, height: 0.3 }
    const two = samples.map((s, i) => (i < 30 ? s : { ...s, bounds: elsewhere, subject: faceAt(0.25, 0.25) }))
    expect(presenceOf(two, EVERY).share).toBe(1)
  })

  it('has nothing to say where nobody was ever found', () => {
    expect(presenceOf([{ micros: 0, subject: null, bounds }], EVERY)).toMatchObject({ share: 0, smallest: null })
    expect(presenceOf([], EVERY)).toMatchObject({ share: 1, outside: [] })
  })
})

describe('the subject of a region', () => {
  it('is the face inside rather than another beside it', () => {
    const { by, samples } = subjectsOf([
      { micros: 0, bounds, faces: [faceAt(0.4, 0.7), faceAt(0.75, 0.75)], moving: null },
    ])
    expect(by).toBe('face')
    expect(samples[0]?.subject?.x).toBeCloseTo(0.7)
  })

  it('is told by movement where faces are hardly ever found', () => {
    const found = Array.from({ length: 20 }, (_, i) => ({
      micros: i,
      bounds,
      faces: i === 3 ? [faceAt(0.7, 0.7)] : [],
      moving: faceAt(0.8, 0.8),
    }))
    expect(subjectsOf(found)).toMatchObject({
      by: 'movement',
      samples: expect.arrayContaining([{ micros: 0, bounds, subject: faceAt(0.8, 0.8) }]),
    })
  })
})

const [W, H] = [64, 36]

/** A small picture of a wall with a lamp, and somebody of 12 × 20 px standing at `x`; nobody where that is null. */
function room(x: number | null, random: () => number): Uint8Array {
  return Uint8Array.from({ length: W * H }, (_, i) => {
    const [px, py] = [i % W, Math.floor(i / W)]
    const person = x !== null && px >= x && px < x + 12 && py >= 12 && py < 32
    const wall = px > 50 && py < 8 ? 230 : 60 + py
    return (person ? 200 : wall) + Math.round(random() * 6)
  })
}

describe('what moves', () => {
  it('is found wherever it stands before a background that holds still, and missed when it has gone', () => {
    const random = seeded(11).next
    const places = Array.from({ length: 60 }, (_, i) => (i >= 40 && i < 48 ? null : Math.round(4 + random() * 44)))
    const found = movingSubjects(
      places.map((x) => room(x, random)),
      W,
      H,
    )
    places.forEach((x, i) => {
      if (x === null) expect(found[i]).toBeNull()
      else expect(Math.abs((found[i]?.x ?? 9) * W - x)).toBeLessThanOrEqual(2)
    })
  })
})

describe('where the eye would go', () => {
  it('is what changes, not what changes everywhere', () => {
    const random = seeded(12).next
    const before = room(10, random)
    const after = room(16, random).map((v) => Math.min(255, v + 10))
    const point = salientPoint(after, before, W, H)
    expect(Math.abs((point?.x ?? 0) * W - 19)).toBeLessThan(8)
  })

  it('is at what moves a little, not at the brightest thing that stands still, nor between the two', () => {
    const scene = (x: number) =>
      Uint8Array.from({ length: W * H }, (_, i) => {
        const [px, py] = [i % W, Math.floor(i / W)]
        if (Math.hypot(px - 52, py - 7) < 4) return 250
        return px >= x && px < x + 3 && py === 22 ? 90 : 120
      })
    const point = salientPoint(scene(14), scene(12), W, H)
    expect(Math.abs((point?.x ?? 0) * W - 14.5)).toBeLessThan(4)
    expect(Math.abs((point?.y ?? 0) * H - 22.5)).toBeLessThan(3)
    expect(Math.abs((salientPoint(scene(14), null, W, H)?.x ?? 0) * W - 52.5)).toBeLessThan(4)
  })

  it('is nowhere in an empty picture', () => {
    expect(salientPoint(new Uint8Array(W * H).fill(90), null, W, H)).toBeNull()
  })
})

describe('a crop path that follows', () => {
  const settings = { reach: { x: 0.06, y: 0.2 }, mostPerSecond: 0.3 }
  const along = (at: (seconds: number) => Point | null, seconds = 20) =>
    Array.from({ length: seconds * 4 }, (_, i) => ({ micros: (i + 0.5) * EVERY, at: at((i + 0.5) / 4) }))

  it('holds quite still for a subject that only fidgets', () => {
    const random = seeded(13).next
    const path = followPath(
      along(() => ({ x: 0.5 + (random() - 0.5) * 0.1, y: 0.5 })),
      [],
      settings,
    )
    expect(path).toHaveLength(1)
    expect(path[0]?.x).toBeCloseTo(0.5, 1)
  })

  it('moves when the subject does, no faster than it may, and ends where the subject is', () => {
    const subject = (t: number) => ({ x: 0.2 + 0.6 * Math.min(1, Math.max(0, (t - 8) / 4)), y: 0.5 })
    const path = followPath(along(subject), [], settings)
    expect(pathAt(path, 4e6).x).toBeCloseTo(0.2, 1)
    expect(pathAt(path, 19e6).x).toBeCloseTo(0.8, 1)
    for (let t = 0; t < 20e6; t += 50_000) {
      const speed = Math.abs(pathAt(path, t + 50_000).x - pathAt(path, t).x) / 0.05
      expect(speed).toBeLessThanOrEqual(settings.mostPerSecond * 1.02)
      // Never back and forth: the subject goes one way.
      expect(pathAt(path, t + 50_000).x).toBeGreaterThanOrEqual(pathAt(path, t).x - 1e-9)
    }
  })

  it('begins anew at a hard cut, at that very frame', () => {
    const path = followPath(
      along((t) => ({ x: t < 10.1 ? 0.2 : 0.8, y: 0.5 })),
      [10_100_000],
      settings,
    )
    expect(pathAt(path, 10_099_999).x).toBeCloseTo(0.2)
    expect(pathAt(path, 10_100_000).x).toBeCloseTo(0.8)
    expect(path.filter((k) => k.jump)).toHaveLength(2)
  })

  it('stays where the subject was last while it is not to be found, and is empty when it never was', () => {
    const path = followPath(
      along((t) => (t > 5 && t < 9 ? null : { x: 0.3, y: 0.5 })),
      [],
      settings,
    )
    expect(pathAt(path, 7e6).x).toBeCloseTo(0.3)
    expect(
      followPath(
        along(() => null),
        [],
        settings,
      ),
    ).toEqual([])
  })

  it('goes through keys in rising order for any wandering subject', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed).next
      let x = 0.5
      const path = followPath(
        along(() => ({ x: (x = Math.min(1, Math.max(0, x + (random() - 0.5) * 0.3))), y: random() })),
        [3_000_000, 3_100_000],
        settings,
      )
      path.forEach((k, i) => i > 0 && expect(k.micros, `seed ${seed}`).toBeGreaterThan(path[i - 1]?.micros ?? -1))
      for (const k of path) expect(k.x >= 0 && k.x <= 1 && k.y >= 0 && k.y <= 1).toBe(true)
    }
  })
})
