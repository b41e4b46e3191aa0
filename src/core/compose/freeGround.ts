import { toEven } from '../geometry/evenGrid'
import { areaOf, intersection, scaleRect, type Rect, type Size } from '../geometry/rect'
import { SummedArea } from '../geometry/summedArea'
import { usualArea } from '../layout/wordAreas'
import type { Area } from '../model/layout'
import { startingOutlets } from '../model/outlet'

/** A part of the canvas, px, and how much it matters that nothing lies over it. */
export interface Kept {
  rect: Rect
  matters: number
}

/** What matters so much is not to be written over at all, if that can be helped: heads, what is read, other words. */
const FORBIDDEN = 0.7
/** Touching it costs this, however little of it. */
const TOUCH = 0.5
/** Going from one corner of the canvas to another. */
const FAR = 0.12
/** From this cost on a place is one that words should not have. */
export const BAD_PLACE = 0.4

/** What feeds lay over a picture hides less than it would be hidden by. */
const COVERED_MATTERS = 0.35

const OUTLETS = startingOutlets('')

/** What the outlets to begin with lay over a canvas of a proportion like this, px. */
export function coveredByFeeds(canvas: Size): Kept[] {
  const alike = ({ width, height }: Size) => Math.abs(width / height - canvas.width / canvas.height) < 0.05
  return OUTLETS.filter((o) => alike(o.shape)).flatMap((o) =>
    o.zones.map((z) => ({ rect: scaleRect(z.rect, canvas.width, canvas.height), matters: COVERED_MATTERS })),
  )
}

/** Sizes of an area, as shares of the usual one, and what it costs to have to do with less. */
const SIZES = [
  { across: 1, down: 1, cost: 0 },
  { across: 1, down: 0.72, cost: 0.05 },
  { across: 0.72, down: 1.25, cost: 0.1 },
  { across: 0.52, down: 1.6, cost: 0.24 },
  { across: 0.4, down: 2, cost: 0.36 },
] as const

/** Words stay clear of the canvas's edges by these shares of it: what feeds lay over pictures is there. */
const SAFE = { x: 0.06, top: 0.04, bottom: 0.95 }
const STEPS = { across: 4, down: 12 }

/** A place over a picture, and what is wrong with it: 0 nothing, from {@link BAD_PLACE} on it is a fault. */
export interface Place {
  rect: Rect
  cost: number
}

/** A canvas is looked at in cells of its shorter side divided by this. */
const CELLS = 45
/** What matters is summed up in these parts. */
const PARTS = 1000

/**
 * What lies where on a canvas, in cells and summed up, so that any place is judged in one go. What words must not lie
 * on counts for every cell that it touches.
 */
export class FreeGround {
  private readonly cell: number
  private readonly grid: Size
  private readonly matters: SummedArea
  private readonly barred: SummedArea
  /** What was put there since. */
  private readonly added: Kept[] = []

  constructor(
    private readonly canvas: Size,
    kept: readonly Kept[],
  ) {
    this.cell = Math.min(canvas.width, canvas.height) / CELLS
    this.grid = { width: Math.ceil(canvas.width / this.cell), height: Math.ceil(canvas.height / this.cell) }
    const matters = new Float64Array(areaOf(this.grid))
    const barred = new Uint8Array(areaOf(this.grid))
    for (const k of kept) {
      const inside = intersection(k.rect, { x: 0, y: 0, ...canvas })
      if (!inside) continue
      const { x, y, width, height } = this.cellsOf(inside)
      for (let row = y; row < y + height; row++) {
        const from = row * this.grid.width + x
        if (k.matters >= FORBIDDEN) barred.fill(1, from, from + width)
        else for (let i = from; i < from + width; i++) matters[i] = (matters[i] ?? 0) + k.matters
      }
    }
    this.matters = new SummedArea(this.grid, (i) => Math.round((matters[i] ?? 0) * PARTS))
    this.barred = new SummedArea(this.grid, (i) => barred[i] ?? 0)
  }

  add(rect: Rect, matters: number): void {
    this.added.push({ rect, matters })
  }

  /** Where a kind of words goes: near its usual place, over what matters least. */
  placeWords(kind: Area['kind']): Place {
    const { width, height } = this.canvas
    return this.leastCovering(remembered(`${kind} ${width} ${height}`, () => wordCandidates(kind, this.canvas)))
  }

  /** Where a mark goes whose usual place is `usual`, px of the canvas. */
  placeMark({ x, y, width, height }: Rect): Place {
    const key = [x, y, width, height, this.canvas.width, this.canvas.height].join(' ')
    return this.leastCovering(remembered(key, () => markCandidates({ x, y, width, height }, this.canvas)))
  }

  /** What it costs to have something at `rect`: its share of what matters, more where it lies on what it must not. */
  costAt(rect: Rect): number {
    const cells = this.cellsOf(rect)
    const barred = this.barred.share(cells)
    return this.matters.share(cells) / PARTS + barred + (barred > 0 ? TOUCH : 0) + this.costOfAdded(rect)
  }

  private costOfAdded({ x, y, width, height }: Rect): number {
    let cost = 0
    for (const { rect, matters } of this.added) {
      const across = Math.min(x + width, rect.x + rect.width) - Math.max(x, rect.x)
      const down = Math.min(y + height, rect.y + rect.height) - Math.max(y, rect.y)
      if (across > 0 && down > 0) cost += TOUCH + (matters * across * down) / (width * height)
    }
    return cost
  }

  /** `candidates` in the order of what each costs by itself. */
  private leastCovering(candidates: readonly Place[]): Place {
    let best: Place | null = null
    for (const { rect, cost } of candidates) {
      if (best && cost >= best.cost) break
      const total = cost + this.costAt(rect)
      if (!best || total < best.cost - 1e-9) best = { rect, cost: total }
    }
    if (!best) throw new RangeError('no place is given')
    return best
  }

  /** The cells that a rectangle touches, at least one; a sliver of a cell does not count. */
  private cellsOf({ x, y, width, height }: Rect): Rect {
    const [left, right] = this.span(x, width, this.grid.width)
    const [top, bottom] = this.span(y, height, this.grid.height)
    return { x: left, y: top, width: right - left, height: bottom - top }
  }

  private span(from: number, length: number, of: number): [number, number] {
    const first = Math.min(of - 1, Math.max(0, Math.floor((from + SLIVER) / this.cell)))
    return [first, Math.max(first + 1, Math.min(of, Math.ceil((from + length - SLIVER) / this.cell)))]
  }
}

/** So many px of a cell are not worth counting it. */
const SLIVER = 3

const known = new Map<string, Place[]>()
const MAX_KNOWN = 64

/** Candidates are the same for every picture: they are made once for a canvas. */
function remembered(key: string, make: () => Place[]): Place[] {
  const there = known.get(key)
  if (there) return there
  if (known.size >= MAX_KNOWN) known.clear()
  const made = make().sort((a, b) => a.cost - b.cost)
  known.set(key, made)
  return made
}

function wordCandidates(kind: Area['kind'], canvas: Size): Place[] {
  const usual = usualArea(kind, canvas)
  const diagonal = Math.hypot(canvas.width, canvas.height)
  const places: Place[] = [{ rect: usual, cost: 0 }]
  for (const { across, down, cost } of SIZES) {
    const size = { width: toEven(usual.width * across), height: toEven(usual.height * down) }
    const room = {
      x: canvas.width * (1 - 2 * SAFE.x) - size.width,
      y: canvas.height * (SAFE.bottom - SAFE.top) - size.height,
    }
    if (room.y < 0) continue
    const columns = room.x < 8 ? 0 : STEPS.across
    for (let j = 0; j <= STEPS.down; j++)
      for (let i = 0; i <= columns; i++) {
        const rect = {
          x: columns === 0 ? usual.x : toEven(canvas.width * SAFE.x + (room.x * i) / columns),
          y: toEven(canvas.height * SAFE.top + (room.y * j) / STEPS.down),
          ...size,
        }
        const away = Math.hypot(
          rect.x + rect.width / 2 - usual.x - usual.width / 2,
          rect.y + rect.height / 2 - usual.y - usual.height / 2,
        )
        places.push({ rect, cost: cost + (FAR * away) / diagonal })
      }
  }
  return places
}

/** Places for a mark that are tried across and down. */
const TRIED = { across: 7, down: 31 }
/** What is clear of an edge by this share of the shorter side looks put there. */
const MARGIN = 0.035
const MARK_FAR = 0.04

function markCandidates(usual: Rect, canvas: Size): Place[] {
  const margin = MARGIN * Math.min(canvas.width, canvas.height)
  const room = { x: canvas.width - usual.width, y: canvas.height - usual.height }
  const diagonal = Math.hypot(canvas.width, canvas.height)
  const at = (i: number, of: number, length: number) =>
    length <= 2 * margin ? length / 2 : margin + (i / (of - 1)) * (length - 2 * margin)
  const places: Place[] = [{ rect: usual, cost: 0 }]
  for (let j = 0; j < TRIED.down; j++)
    for (let i = 0; i < TRIED.across; i++) {
      const [x, y] = [at(i, TRIED.across, room.x), at(j, TRIED.down, room.y)]
      places.push({
        rect: { ...usual, x: toEven(x), y: toEven(y) },
        cost: (MARK_FAR * Math.hypot(x - usual.x, y - usual.y)) / diagonal,
      })
    }
  return places
}

/** What it costs to have something at `rect`, to the pixel. */
export function costOf(rect: Rect, kept: readonly Kept[]): number {
  return kept.reduce((cost, k) => {
    const both = intersection(rect, k.rect)
    if (!both) return cost
    const touches = k.matters >= FORBIDDEN && both.width > SLIVER && both.height > SLIVER
    return cost + (k.matters * areaOf(both)) / areaOf(rect) + (touches ? TOUCH : 0)
  }, 0)
}
