import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../../tests/support/seeded'
import type { Rect, Size } from '../../geometry/rect'
import { isPerson } from '../../model/region'
import { fingerprint, fingerprintOf, likeness, recognise, SURE, WORTH_OFFERING } from './fingerprint'
import { FrameWatcher } from './frameWatcher'
import { StillLines } from './lines'
import { shows, type SeenPerson } from './people'
import { isSure } from './proposal'
import { placesOf } from './places'
import { proposeRegions } from './propose'
import { structureOf, type RegionEvidence } from './structure'
import { snapEdges } from './snap'
import { SummedArea } from '../../geometry/summedArea'
import { tighten } from './tighten'

const SIZE = { width: 480, height: 270 }
const FRAMES = 12

type Painter = (frame: number, random: ReturnType<typeof seeded>) => (x: number, y: number) => number

/** Frames of a picture given by a function of place and time. */
function watch(size: Size, paint: Painter): RegionEvidence {
  const random = seeded(SEED)
  const watcher = new FrameWatcher(size)
  for (let n = 0; n < FRAMES; n++) {
    const luma = paint(n, random)
    const frame = new Uint8Array(size.width * size.height)
    for (let y = 0, i = 0; y < size.height; y++) for (let x = 0; x < size.width; x++, i++) frame[i] = luma(x, y)
    watcher.add(frame)
  }
  return watcher.seen()
}

const inside = (r: Rect, x: number, y: number) => x >= r.x && x < r.x + r.width && y >= r.y && y < r.y + r.height

/** Something that is elsewhere in every frame: no line in it holds still. */
const moving: Painter = (n, random) => {
  const [a, b, c] = [random.integer(0, 200), random.integer(0, 200), random.integer(3, 9)]
  return (x, y) =>
    128 + 70 * Math.sin((x + a) / (9 + c)) * Math.cos((y + b) / (7 + c)) + 20 * Math.sin((x * (n + 1) + y * 3) / 31)
}

/** A room that rests with somebody in it who moves. */
function room(rect: Rect, n: number): (x: number, y: number) => number {
  const cx = rect.x + rect.width * (0.5 + 0.12 * Math.sin(n * 1.7))
  const cy = rect.y + rect.height * (0.5 + 0.05 * Math.cos(n * 2.3))
  return (x, y) => (Math.hypot((x - cx) / 0.8, y - cy) < rect.height * 0.28 ? 200 : 90)
}

const CAMERA = { x: 340, y: 180, width: 120, height: 72 }
const withCamera =
  (border = 0, camera: Rect = CAMERA): Painter =>
  (n, random) => {
    const game = moving(n, random)
    const film = room(camera, n)
    const outer = {
      x: camera.x - border,
      y: camera.y - border,
      width: camera.width + 2 * border,
      height: camera.height + 2 * border,
    }
    return (x, y) => {
      if (inside(camera, x, y)) return film(x, y)
      return inside(outer, x, y) ? 235 : game(x, y)
    }
  }

const proposalsOf = (seen: RegionEvidence, people: readonly SeenPerson[] | null = null) =>
  proposeRegions(structureOf(seen), people)

const linesOf = ({ stillness }: RegionEvidence) =>
  [new StillLines(stillness, 'x'), new StillLines(stillness, 'y')] as const

describe('summed areas', () => {
  it(`count what a plain loop counts (seed ${SEED})`, () => {
    const random = seeded(SEED)
    const size = { width: 23, height: 17 }
    const pixels = Array.from({ length: size.width * size.height }, () => random.next() < 0.4)
    const area = new SummedArea(size, (i) => pixels[i] ?? false)
    for (let round = 0; round < 100; round++) {
      const x = random.integer(0, 22)
      const y = random.integer(0, 16)
      const rect = { x, y, width: random.integer(1, 23 - x), height: random.integer(1, 17 - y) }
      expect(area.count(rect)).toBe(pixels.filter((p, i) => p && inside(rect, i % 23, Math.floor(i / 23))).length)
    }
  })
})

describe('lines that hold still', () => {
  it('are found at the pixel where they are, and nowhere in what moves', () => {
    const [upright, level] = linesOf(watch(SIZE, withCamera()))
    expect(upright.share(CAMERA.x, CAMERA.y, CAMERA.y + CAMERA.height)).toBeGreaterThan(0.7)
    expect(upright.share(CAMERA.x + CAMERA.width, CAMERA.y, CAMERA.y + CAMERA.height)).toBeGreaterThan(0.7)
    expect(level.share(CAMERA.y, CAMERA.x, CAMERA.x + CAMERA.width)).toBeGreaterThan(0.7)
    expect(upright.share(CAMERA.x, 0, 150)).toBeLessThan(0.1)
    expect(upright.share(CAMERA.x - 6, CAMERA.y, CAMERA.y + CAMERA.height)).toBeLessThan(0.2)
  })

  it('draw an edge that is dragged near them, and leave one alone that is not', () => {
    const [upright, level] = linesOf(watch(SIZE, withCamera()))
    const drawn = { x: CAMERA.x - 4, y: CAMERA.y + 3, width: CAMERA.width + 9, height: CAMERA.height - 1 }
    expect(snapEdges(drawn, 'nw', { upright, level }, 6)).toMatchObject({ x: CAMERA.x, y: CAMERA.y })
    expect(snapEdges(drawn, 'nw', { upright, level }, 2)).toEqual(drawn)
  })
})

describe('tightening', () => {
  it.each([0, 1, 2, 3, 5, 8, 12])('takes off a border of %i px and no more', (border) => {
    const seen = watch(SIZE, withCamera(border))
    const outer = {
      x: CAMERA.x - border,
      y: CAMERA.y - border,
      width: CAMERA.width + 2 * border,
      height: CAMERA.height + 2 * border,
    }
    expect(tighten(outer, seen.stillness, ...linesOf(seen))).toEqual(CAMERA)
  })

  it('takes off black bars however wide', () => {
    const content = { x: 0, y: 40, width: 480, height: 190 }
    const seen = watch(SIZE, (n, random) => {
      const game = moving(n, random)
      return (x, y) => (inside(content, x, y) ? game(x, y) : 16)
    })
    expect(tighten({ x: 0, y: 0, ...SIZE }, seen.stillness, ...linesOf(seen))).toEqual(content)
  })
})

describe('proposals', () => {
  it.each([
    ['without border', 0],
    ['with a border', 4],
  ])('find a camera over a game, %s, and the largest part of the game beside it', (_, border) => {
    const proposals = proposalsOf(watch(SIZE, withCamera(border)))
    expect(proposals.find((p) => p.role === 'face')?.rect).toEqual(CAMERA)
    const game = proposals.find((p) => p.role === 'game')?.rect
    // 340 × 270 on its left is more than 480 × 180 above it.
    expect(game).toEqual({ x: 0, y: 0, width: CAMERA.x, height: 270 })
  })

  const tiles = [12, 246].map((x) => ({ x, y: 71, width: 222, height: 128 }))
  const call: Painter = (n) => {
    const films = tiles.map((t) => room(t, n + t.x))
    return (x, y) => {
      const at = tiles.findIndex((t) => inside(t, x, y))
      return at < 0 ? 30 : (films[at]?.(x, y) ?? 0)
    }
  }

  it('find the pictures of a call on its background', () => {
    const proposals = proposalsOf(watch(SIZE, call))
    expect(proposals.map((p) => p.role)).toEqual(['speaker', 'speaker'])
    expect(proposals.map((p) => p.rect).sort((a, b) => a.x - b.x)).toEqual(tiles)
  })

  it('know somebody in a call by little, beside another whose picture is as large; by nothing nobody', () => {
    const seen = watch(SIZE, call)
    const head = (x: number) => ({ x: x + 90, y: 100, width: 40, height: 44 })
    const [sure, weak] = [somebody(head(12)), { ...somebody(head(246)), score: 0.42, seen: 0.4 }]
    expect(proposalsOf(seen, [sure, weak]).map((p) => p.role)).toEqual(['speaker', 'speaker'])
    const [, other] = proposalsOf(seen, [sure])
    expect(other).toMatchObject({ role: 'game' })
    expect(other && isSure(other)).toBe(false)
    expect(proposalsOf(seen, [weak]).filter((p) => p.role === 'speaker')).toEqual([])
  })

  it('find slides and the speaker in their corner', () => {
    const speaker = { x: 360, y: 180, width: 110, height: 80 }
    const proposals = proposalsOf(
      watch(SIZE, (n) => {
        const film = room(speaker, n)
        const slide = Math.floor(n / 6)
        return (x, y) => {
          if (inside(speaker, x, y)) return film(x, y)
          if (y < 50) return 60
          return (x + slide * 37) % 60 < 22 && (y + slide * 13) % 30 < 9 && x < 330 ? 40 : 225
        }
      }),
    )
    expect(proposals.find((p) => p.role === 'speaker')?.rect).toEqual(speaker)
    expect(proposals.filter((p) => p.role !== 'speaker').map((p) => p.role)).toEqual(['slides'])
  })

  it('find a display that rests over a moving game, though it lets some of that shine through', () => {
    const display = { x: 24, y: 20, width: 96, height: 36 }
    for (const through of [0, 0.25]) {
      const over: Painter = (n, random) => {
        const game = moving(n, random)
        return (x, y) => (inside(display, x, y) ? 20 + through * (game(x, y) - 128) : game(x, y))
      }
      const [found, ...more] = proposalsOf(watch(SIZE, over))
      expect(more).toEqual([])
      expect(found).toMatchObject({ found: 'display', role: 'hud' })
      for (const key of ['x', 'y', 'width', 'height'] as const)
        expect(Math.abs((found?.rect[key] ?? 0) - display[key])).toBeLessThanOrEqual(4)
    }
  })

  it('find the board on a desk: the one part that moves', () => {
    const board = { x: 120, y: 60, width: 200, height: 150 }
    const [found, ...more] = proposalsOf(
      watch(SIZE, (n, random) => {
        const game = moving(n, random)
        return (x, y) => (inside(board, x, y) ? game(x, y) : 70 + 40 * Math.sin(x / 45) * Math.cos(y / 37))
      }),
    )
    expect(more).toEqual([])
    for (const key of ['x', 'y', 'width', 'height'] as const)
      expect(Math.abs((found?.rect[key] ?? 0) - board[key])).toBeLessThanOrEqual(4)
  })

  it('are none where there is nothing to find', () => {
    expect(proposalsOf(watch(SIZE, moving))).toEqual([])
    // A sky that fades from row to row is no bar and no gutter.
    const sky = watch(SIZE, (n) => (x, y) => (y < 150 ? 220 - y / 2 : 60 + 40 * Math.sin((x + n * 40) / 20)))
    expect(proposalsOf(sky).filter((p) => p.role !== 'whole')).toEqual([])
  })

  const somebody = (head: Rect): SeenPerson => ({ head, seen: 1, score: 0.8 })
  const inCamera = somebody({ x: CAMERA.x + 40, y: CAMERA.y + 14, width: 40, height: 40 })

  it('call a picture laid over another a face where somebody is seen in it, and no face where nobody is', () => {
    const seen = watch(SIZE, withCamera(3))
    const [face, ...others] = proposalsOf(seen, [inCamera]).filter((p) => p.found === 'inset')
    expect(others).toEqual([])
    expect(face).toMatchObject({ role: 'face', rect: CAMERA })
    const without = proposalsOf(seen, [])
    expect(without.filter((p) => isPerson(p.role))).toEqual([])
    expect(without.find((p) => p.found === 'inset')).toMatchObject({ role: 'hud', rect: CAMERA })
  })

  it('know somebody whose border never rests', () => {
    const glowing: Painter = (n, random) => {
      const plain = withCamera(0)(n, random)
      const light = random.integer(60, 250)
      const outer = { x: CAMERA.x - 4, y: CAMERA.y - 4, width: CAMERA.width + 8, height: CAMERA.height + 8 }
      return (x, y) => (inside(outer, x, y) && !inside(CAMERA, x, y) ? light : plain(x, y))
    }
    const [face] = proposalsOf(watch(SIZE, glowing), [inCamera]).filter((p) => p.role === 'face')
    expect(face?.found).toBe('inset')
    expect(Math.abs((face?.rect.x ?? 0) - CAMERA.x)).toBeLessThanOrEqual(4)
    expect(Math.abs((face?.rect.width ?? 0) - CAMERA.width)).toBeLessThanOrEqual(8)
  })

  it('take the whole picture where somebody fills it, and head and shoulders where a picture has no edges', () => {
    const seen = watch(SIZE, moving)
    const large = somebody({ x: 180, y: 60, width: 110, height: 120 })
    expect(proposalsOf(seen, [large])).toMatchObject([{ found: 'camera', rect: { x: 0, y: 0, ...SIZE } }])
    const small = somebody({ x: 400, y: 200, width: 30, height: 32 })
    const [person] = proposalsOf(seen, [small]).filter((p) => p.role === 'face')
    expect(person).toMatchObject({ found: 'person' })
    expect(person && isSure(person), 'only where somebody says so').toBe(false)
    expect(person && shows(person.rect, small)).toBe(true)
    // What looks only a little like a face is none without a camera's edges around it.
    expect(proposalsOf(seen, [{ ...small, score: 0.5 }]).filter((p) => p.role === 'face')).toEqual([])
  })

  const chat = { x: 20, y: 40, width: 140, height: 170 }
  /** Lines of letters over a game; `upTo`: so far, px, they are labels that rest, and only what follows changes. */
  const letters =
    (upTo: number): Painter =>
    (n, random) => {
      const game = moving(n, random)
      const ends = Array.from({ length: 12 }, () => random.integer(50, 130))
      return (x, y) => {
        if (!inside(chat, x, y)) return game(x, y)
        const line = Math.floor((y - chat.y) / 17)
        const isLetter = (y - chat.y) % 17 > 6 && x - chat.x > 8 && x - chat.x < Math.max(upTo, ends[line] ?? 0)
        const change = x - chat.x < upTo ? 0 : n * 3 + Math.floor(n / 4)
        return isLetter && (x * 3 + line * 5 + change) % 7 < 3 ? 235 : 22
      }
    }

  it('know a chat that runs upward over a game by its lines, and take no pattern for one', () => {
    const [found, ...others] = proposalsOf(watch(SIZE, letters(0)), []).filter((p) => p.role === 'chat')
    expect(others).toEqual([])
    expect(found).toMatchObject({ found: 'text', rect: chat })
    expect(proposalsOf(watch(SIZE, withCamera(3)), []).filter((p) => p.role === 'chat')).toEqual([])
  })

  it('take labels that rest beside numbers that change for a display, and for no chat', () => {
    const found = proposalsOf(watch(SIZE, letters(70)), [])
    expect(found.filter((p) => p.role === 'chat')).toEqual([])
    expect(found.filter((p) => p.found === 'display')).toMatchObject([{ role: 'hud', rect: chat }])
  })

  it('are none from too few frames', () => {
    const watcher = new FrameWatcher(SIZE)
    watcher.add(new Uint8Array(SIZE.width * SIZE.height))
    expect(proposalsOf(watcher.seen())).toEqual([])
  })
})

describe('fingerprints', () => {
  const print = (seen: RegionEvidence) =>
    fingerprintOf(seen.stillness, ...linesOf(seen), placesOf(proposalsOf(seen), [], seen.stillness))

  it('know a setup again in another size with other content, and tell another one apart', () => {
    const known = print(watch(SIZE, withCamera(3)))
    expect(fingerprint.safeParse(known).success).toBe(true)
    const larger = watch({ width: 640, height: 360 }, (n, random) => {
      const small = withCamera(3)(n + 20, random)
      return (x, y) => small(x * 0.75, y * 0.75)
    })
    const elsewhere = print(watch(SIZE, withCamera(3, { x: 20, y: 20, width: 150, height: 80 })))
    expect(likeness(known, known)).toBeCloseTo(1, 5)
    expect(likeness(known, print(larger))).toBeGreaterThan(SURE)
    expect(likeness(known, elsewhere)).toBeLessThan(WORTH_OFFERING)
    const setups = [
      { id: 'evening', fingerprint: known },
      { id: 'morning', fingerprint: elsewhere },
      { id: 'never looked at', fingerprint: null },
    ]
    expect(recognise(print(larger), setups)).toMatchObject({ kind: 'sure', match: { id: 'evening' } })
    expect(recognise(print(watch(SIZE, moving)), setups)).toEqual({ kind: 'none' })
  })

  it('ask when two kept setups are as like', () => {
    const known = print(watch(SIZE, withCamera(3)))
    expect(
      recognise(known, [
        { id: 'a', fingerprint: known },
        { id: 'b', fingerprint: known },
      ]).kind,
    ).toBe('unsure')
  })
})
