import type { TextStyle } from '@/core/model/textStyle'
import { cssFont } from './measureText'

/**
 * A letter that no font will ever have (Unicode keeps it so): what stands for it stands for every other that is
 * missing.
 */
const NEVER_DRAWN = '\u{10FFFF}'

/**
 * Space, and what has no shape of its own: joiners, variation selectors, marks of direction and of language,
 * controls.
 */
const SHAPELESS = /^[\s\p{Cc}\p{Cf}\p{Cs}\p{Z}\p{Variation_Selector}\u{E0000}-\u{E007F}\u{1F3FB}-\u{1F3FF}\u20E3]$/u

const SIDE = 48
const EM = 32

let canvas: OffscreenCanvasRenderingContext2D | null = null
const known = new Map<string, boolean>()
const MAX_KNOWN = 20_000

/**
 * Those letters of a text that nothing is drawn for, or only what stands for a missing one. The fonts must have been
 * loaded, see loadFonts.
 */
export function missingGlyphs(text: string, { font, weight }: Pick<TextStyle, 'font' | 'weight'>): string[] {
  const face = cssFont({ font, weight, size: EM })
  return [...new Set(text.normalize('NFC'))].filter((letter) => !SHAPELESS.test(letter) && !isDrawn(letter, face))
}

function isDrawn(letter: string, face: string): boolean {
  const key = `${face} ${letter}`
  let drawn = known.get(key)
  if (drawn === undefined) {
    const picture = pictureOf(letter, face)
    drawn = picture !== '' && picture !== pictureOf(NEVER_DRAWN, face)
    if (known.size >= MAX_KNOWN) known.clear()
    known.set(key, drawn)
  }
  return drawn
}

/** What a letter looks like, as text; nothing for one that leaves no mark. */
function pictureOf(letter: string, face: string): string {
  canvas ??= new OffscreenCanvas(SIDE, SIDE).getContext('2d', { willReadFrequently: true })
  if (!canvas) throw new Error('no 2D canvas')
  canvas.clearRect(0, 0, SIDE, SIDE)
  canvas.font = face
  canvas.fillText(letter, 4, EM + 4)
  const { data } = canvas.getImageData(0, 0, SIDE, SIDE)
  return data.some((v) => v > 0) ? data.join() : ''
}
