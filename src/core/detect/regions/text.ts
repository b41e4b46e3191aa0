import { intersection, type Rect } from '../../geometry/rect'
import { insetsIn, type InsetSizes } from './insets'
import type { RegionProposal } from './proposal'
import type { Structure } from './structure'

/** A pixel stands at the side of a letter when its neighbours on a row differ by so much, 8-bit luma. */
const SIDE = 40

/** How far apart lines of text may stand: px, and as a share of what they are in. */
const PITCH = { least: 10, most: 1 / 3 }

/** Rows that hardly have letters, and such that are full of them all through, tell nothing. */
const MIN_SPREAD = 0.02

/**
 * How much a rectangle looks like lines of text, 0..1: rows with many sides of letters and rows with none take turns
 * at one distance. The middle of what is seen in `frames`, 8-bit luma `[height][width]`.
 */
export function textIn(rect: Rect, frames: readonly Uint8Array[], width: number): number {
  const scores = frames.map((luma) => rhythmOf(rowsOf(rect, luma, width))).sort((a, b) => a - b)
  return scores[scores.length >> 1] ?? 0
}

/** For each row of a rectangle the share of its pixels that stand at the side of a letter. */
function rowsOf(rect: Rect, luma: Uint8Array, width: number): Float64Array {
  const rows = new Float64Array(rect.height)
  for (const at of sidesIn(rect, luma, width)) {
    const y = Math.floor(at / width) - rect.y
    rows[y] = (rows[y] as number) + 1 / rect.width
  }
  return rows
}

/** Where in a rectangle pixels stand at the side of a letter, as places in `luma`. */
function* sidesIn(rect: Rect, luma: Uint8Array, width: number): Generator<number> {
  for (let y = rect.y; y < rect.y + rect.height; y++)
    for (let at = y * width + rect.x + 1; at < y * width + rect.x + rect.width - 1; at++)
      if (Math.abs((luma[at + 1] as number) - (luma[at - 1] as number)) > SIDE) yield at
}

/** How much of what is written in a rectangle stands there in all `frames`, 0..1: labels and lists do, chats do not. */
function restingIn(rect: Rect, frames: readonly Uint8Array[], width: number): number {
  const times = new Map<number, number>()
  let sides = 0
  for (const luma of frames)
    for (const at of sidesIn(rect, luma, width)) {
      times.set(at, (times.get(at) ?? 0) + 1)
      sides++
    }
  const always = [...times.values()].filter((n) => n === frames.length).length
  return sides === 0 ? 0 : (always * frames.length) / sides
}

/** How regularly values rise and fall: their likeness to themselves a line further on, less that half a line on. */
function rhythmOf(rows: Float64Array): number {
  const mean = rows.reduce((a, b) => a + b, 0) / rows.length
  const off = rows.map((v) => v - mean)
  const spread = Math.sqrt(off.reduce((sum, v) => sum + v * v, 0) / off.length)
  if (spread < MIN_SPREAD) return 0
  const alike = (lag: number) => {
    let both = 0
    let first = 0
    let second = 0
    for (let y = 0; y + lag < off.length; y++) {
      const [a, b] = [off[y] as number, off[y + lag] as number]
      both += a * b
      first += a * a
      second += b * b
    }
    return first > 0 && second > 0 ? both / Math.sqrt(first * second) : 0
  }
  let best = 0
  for (let lag = PITCH.least; lag <= off.length * PITCH.most; lag++)
    best = Math.max(best, Math.min(1, (alike(lag) - alike(lag >> 1)) / 1.2))
  return best
}

/** From so much likeness to lines of text on it is text. */
const TEXT = 0.45
const MIN_COVER = 0.7
const MOST = 600
const TEXT_SIZES: InsetSizes = { leastSide: 0.08, mostSide: 0.85, leastProportion: 0.25, mostProportion: 3 }

const isText = (rect: Rect, { frames, stillness }: Structure): boolean => textIn(rect, frames, stillness.width) >= TEXT

/** Where so much of the text rests it is a list, or labels with numbers that change. */
const RESTS = 0.3

const asText = (rect: Rect, { frames, stillness }: Structure): RegionProposal =>
  restingIn(rect, frames, stillness.width) >= RESTS
    ? { found: 'display', role: 'hud', rect, confidence: 0.7 }
    : { found: 'text', role: 'chat', rect, confidence: 0.7 }

/** A picture laid over another that is no camera: a chat, or a list, where it is text. */
export function withTexts(insets: readonly RegionProposal[], structure: Structure): RegionProposal[] {
  return insets.map((inset) =>
    inset.role === 'hud' && isText(inset.rect, structure) ? asText(inset.rect, structure) : inset,
  )
}

/** Text that was not found as a display: what people write to one another, a list, numbers that change. */
export function textsBeside(known: readonly RegionProposal[], structure: Structure): RegionProposal[] {
  const { content, lines } = structure
  if (known.some((p) => p.role === 'slides')) return []
  const found: RegionProposal[] = []
  for (const { rect, cover } of insetsIn(content, lines.upright, lines.level, TEXT_SIZES, MOST)) {
    if (cover < MIN_COVER || [...known, ...found].some((p) => intersection(p.rect, rect))) continue
    if (isText(rect, structure)) found.push(asText(rect, structure))
  }
  return found
}
