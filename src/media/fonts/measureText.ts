import { FALLBACK_FONTS } from '@/core/model/fonts'
import type { Face, Measure } from '@/core/words/setText'

const FALLBACK = FALLBACK_FONTS.map((f) => `"${f}"`).join(', ')

/** A face as canvases name it, with what takes its place letter by letter. */
export const cssFont = ({ font, weight, size }: Face) =>
  `${weight} ${size}px ${JSON.stringify(font)}, ${FALLBACK}, sans-serif`

let canvas: OffscreenCanvasRenderingContext2D | null = null

/** Widths as canvases of this thread draw them; the fonts must have been loaded, see loadFonts. */
export const measureText: Measure = (text, face) => {
  canvas ??= new OffscreenCanvas(1, 1).getContext('2d')
  if (!canvas) throw new Error('no 2D canvas')
  canvas.font = cssFont(face)
  canvas.textRendering = 'geometricPrecision'
  return canvas.measureText(text).width
}
