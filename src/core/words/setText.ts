import type { Rect } from '../geometry/rect'
import type { TextStyle } from '../model/textStyle'
import { breakLines, type Line } from './breakLines'
import { runsRight } from './runs'

/** What decides how wide letters are. `size`: the em, px. */
export interface Face {
  font: string
  weight: number
  size: number
}

/** Width of a line of text in px, as it will be drawn. */
export type Measure = (text: string, face: Face) => number

/**
 * One line in its place: px of the canvas. `from`..`to` are characters of the text; `right` says that it runs from
 * right to left.
 */
export interface SetLine extends Line {
  x: number
  baseline: number
  width: number
  right: boolean
}

/** A text in its place. */
export interface SetText {
  /** The text as it is written: in capitals where the style says so. */
  text: string
  face: Face
  lines: SetLine[]
  /** What lies behind the letters. */
  blocks: Rect[]
  radius: number
  /** All that is drawn, with rings and blocks. */
  extent: Rect
  /** Whether it had to be set smaller than {@link MIN_SIZE} of what the style asks for. */
  tooLong: boolean
}

/** A text may be set down to so much of its style's size to fit; smaller is a fault. */
export const MIN_SIZE = 0.55

/**
 * Shares of the em: from baseline to baseline, the letters' height above and below it, and what a block reaches
 * beyond the letters.
 */
const LEADING = 1.2
const ASCENT = 0.8
const DESCENT = 0.24
const BLOCK_BESIDE = 0.34
const BLOCK_ABOVE = 0.12
/** What a box round a word reaches beyond it. */
export const BOX_BESIDE = 0.14

const SMALLER = 0.94
const SMALLEST_EM = 4

/**
 * Sets a text into an area of a canvas whose shorter side is `side` px: at the style's size where it fits in the
 * style's lines, else smaller, and never beyond the area. Null for a text of nothing or an area without room.
 */
export function setText(written: string, style: TextStyle, area: Rect, side: number, measure: Measure): SetText | null {
  const text = (style.capitals ? inCapitals(written) : written).trimEnd()
  if (text.trim() === '' || area.width < 8 || area.height < 8) return null
  const wanted = style.size * side
  // Letters grow with the em: each piece is measured once.
  const widths = new Map<string, number>()
  const widthOf = (piece: string) =>
    widths.get(piece) ??
    (widths.set(piece, measure(piece, { font: style.font, weight: style.weight, size: wanted })),
    widths.get(piece) as number)
  for (let size = wanted; size >= SMALLEST_EM; size *= SMALLER) {
    const face = { font: style.font, weight: style.weight, size }
    const margin = marginsOf(style, size)
    const width = (area.width - 2 * margin.beside) / (style.emphasis.kind === 'enlarge' ? style.emphasis.by : 1)
    const most = Math.max(style.lines, text.split('\n').length)
    const tooLong = size < MIN_SIZE * wanted
    const lines = breakLines(
      text,
      width,
      tooLong ? Math.max(most, 4) : most,
      (piece) => (widthOf(piece) * size) / wanted,
    )
    // At other sizes letters may be rounded differently: what is drawn decides.
    if (
      lines &&
      heightOf(lines.length, size, margin.above) <= area.height &&
      lines.every((l) => measure(text.slice(l.from, l.to), face) <= width)
    )
      return placed(text, lines, style, area, face, measure, tooLong)
  }
  return null
}

/** Letters whose capital is two stay as they are, so that every character keeps its number. */
function inCapitals(text: string): string {
  return [...text].map((c) => (c.toLocaleUpperCase().length === c.length ? c.toLocaleUpperCase() : c)).join('')
}

/** What is drawn beyond the letters themselves, px. */
function marginsOf({ block, outline, emphasis }: TextStyle, size: number): { beside: number; above: number } {
  const ring = ((outline?.width ?? 0) * size) / 2
  const box = emphasis.kind === 'box' ? BOX_BESIDE * size : 0
  return {
    beside: Math.max(ring, box, block ? BLOCK_BESIDE * size : 0),
    above: Math.max(ring, block ? BLOCK_ABOVE * size : 0),
  }
}

const heightOf = (lines: number, size: number, above: number) =>
  ((lines - 1) * LEADING + ASCENT + DESCENT) * size + 2 * above

function placed(
  text: string,
  lines: readonly Line[],
  style: TextStyle,
  area: Rect,
  face: Face,
  measure: Measure,
  tooLong: boolean,
): SetText {
  const { size } = face
  const margin = marginsOf(style, size)
  const height = heightOf(lines.length, size, margin.above)
  const top = area.y + PLACES[style.place] * (area.height - height)
  const set = lines.map((line, i): SetLine => {
    const piece = text.slice(line.from, line.to)
    const width = measure(piece, face)
    const right = runsRight(piece)
    const room = area.width - 2 * margin.beside - width
    const along = alongLine(style.align, room, right)
    return {
      ...line,
      width,
      right,
      x: area.x + margin.beside + along,
      baseline: top + margin.above + (ASCENT + i * LEADING) * size,
    }
  })
  const behind = set.map((l): Rect => ({
    x: l.x - margin.beside,
    y: l.baseline - ASCENT * size - margin.above,
    width: l.width + 2 * margin.beside,
    height: (ASCENT + DESCENT) * size + 2 * margin.above,
  }))
  const extent = around(behind)
  const blocks = blocksOf(style, extent, behind)
  return { text, face, lines: set, blocks, radius: (style.block?.radius ?? 0) * size, extent, tooLong }
}

/** Where text stands in its area, as a share of the room that it leaves. */
const PLACES: Record<TextStyle['place'], number> = { top: 0, middle: 0.5, near: 0.5, bottom: 1 }

function around(rects: readonly Rect[]): Rect {
  const x = Math.min(...rects.map((r) => r.x))
  const y = Math.min(...rects.map((r) => r.y))
  return {
    x,
    y,
    width: Math.max(...rects.map((r) => r.x + r.width)) - x,
    height: Math.max(...rects.map((r) => r.y + r.height)) - y,
  }
}

/** How far into its room a line begins: at its start or its end, which change sides where it runs to the left. */
function alongLine(align: TextStyle['align'], room: number, right: boolean): number {
  if (align === 'middle') return room / 2
  return (align === 'start') === right ? room : 0
}

function blocksOf({ block }: TextStyle, extent: Rect, behind: Rect[]): Rect[] {
  if (!block) return []
  return block.behind === 'whole' ? [extent] : behind
}
