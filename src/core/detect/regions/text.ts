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
  for (let y = 0; y < rect.height; y++) {
    const row = (rect.y + y) * width
    let sides = 0
    for (let x = rect.x + 1; x < rect.x + rect.width - 1; x++)
      if (Math.abs((luma[row + x + 1] as number) - (luma[row + x - 1] as number)) > SIDE) sides++
    rows[y] = sides / rect.width
  }
  return rows
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

const asText = (rect: Rect): RegionProposal => ({ found: 'text', role: 'chat', rect, confidence: 0.7 })

/** A picture laid over another that is no camera: a chat where it is text. */
export function withTexts(insets: readonly RegionProposal[], structure: Structure): RegionProposal[] {
  return insets.map((inset) => (inset.role === 'hud' && isText(inset.rect, structure) ? asText(inset.rect) : inset))
}

/** Text that does not rest: what people write to one another, or a list that grows. */
export function textsBeside(known: readonly RegionProposal[], structure: Structure): RegionProposal[] {
  const { content, lines } = structure
  if (known.some((p) => p.role === 'slides')) return []
  const found: RegionProposal[] = []
  for (const { rect, cover } of insetsIn(content, lines.upright, lines.level, TEXT_SIZES, MOST)) {
    if (cover < MIN_COVER || [...known, ...found].some((p) => intersection(p.rect, rect))) continue
    if (isText(rect, structure)) found.push(asText(rect))
  }
  return found
}
