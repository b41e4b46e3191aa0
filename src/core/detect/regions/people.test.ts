import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../../tests/support/seeded'
import { peopleIn, shows, type FoundFace } from './people'

const face = (x: number, y: number, size = 100, score = 0.8): FoundFace => ({ x, y, width: size, height: size, score })

describe('people', () => {
  it(`are faces that come again at about the same place, whatever else is found (seed ${SEED})`, () => {
    const random = seeded(SEED)
    const frames = Array.from({ length: 8 }, (_, n) => [
      face(400 + 30 * Math.sin(n), 300, 100, 0.9),
      // Something else that looks like a face, elsewhere each time.
      face(random.integer(700, 1800), random.integer(0, 900), random.integer(20, 60), 0.5),
    ])
    const people = peopleIn(frames)
    expect(people).toHaveLength(1)
    expect(people[0]).toMatchObject({ seen: 1, score: 0.9 })
    expect(Math.abs((people[0]?.head.x ?? 0) - 400)).toBeLessThanOrEqual(30)
  })

  it('go on when they are not found now and then, and those seen most often come first', () => {
    const people = peopleIn(
      Array.from({ length: 6 }, (_, n) => [...(n % 2 === 0 ? [face(1000, 100)] : []), face(100, 100)]),
    )
    expect(people.map((p) => [p.head.x, p.seen])).toEqual([
      [100, 1],
      [1000, 0.5],
    ])
  })

  it('are none where a face is found twice in many frames, or in frames too few to tell', () => {
    expect(peopleIn([[face(0, 0)], [face(0, 0)], [], [], [], []])).toEqual([])
    expect(peopleIn([[face(0, 0)], [face(0, 0)]])).toEqual([])
    expect(peopleIn([])).toEqual([])
  })

  it('of unlike sizes at one place are two', () => {
    expect(peopleIn([1, 2, 3, 4].map(() => [face(100, 100, 40), face(60, 60, 160)]))).toHaveLength(2)
  })

  it('are shown by a rectangle that has all but a sliver of the head', () => {
    const person = { head: face(100, 100), seen: 1, score: 1 }
    expect(shows({ x: 110, y: 90, width: 200, height: 200 }, person)).toBe(true)
    expect(shows({ x: 150, y: 90, width: 200, height: 200 }, person)).toBe(false)
  })
})
