import type { TextStep } from '@/core/compose/composition'
import type { Size } from '@/core/geometry/rect'
import { pieces, type Piece } from '@/core/words/runs'
import { BOX_BESIDE, setText, type SetLine, type SetText } from '@/core/words/setText'
import { cssFont, measureText } from '../fonts/measureText'
import type { Context2D } from './cropReader'

/** Texts are set once and drawn many times: so many settings are kept. */
const MAX_KEPT = 64
const kept = new Map<string, SetText | null>()

function settingOf({ text, style, area }: TextStep, side: number): SetText | null {
  const key = JSON.stringify([text, style, area, side])
  let known = kept.get(key)
  if (known === undefined) {
    known = setText(text, style, area, side, measureText)
    if (kept.size >= MAX_KEPT) kept.delete(kept.keys().next().value as string)
    kept.set(key, known)
  }
  return known
}

/** Text that was set before its font had come is set anew. */
export function forgetSettings(): void {
  kept.clear()
}

/** Draws words on a canvas of any size; `scale` is canvas pixels per pixel of the composition, which is of `size`. */
export function drawText(ctx: Context2D, step: TextStep, size: Size, scale: { x: number; y: number }): void {
  const set = settingOf(step, Math.min(size.width, size.height))
  if (!set) return
  const { style } = step
  ctx.save()
  ctx.scale(scale.x, scale.y)
  if (step.scale !== 1) {
    const middle = { x: set.extent.x + set.extent.width / 2, y: set.extent.y + set.extent.height / 2 }
    ctx.translate(middle.x, middle.y)
    ctx.scale(step.scale, step.scale)
    ctx.translate(-middle.x, -middle.y)
  }
  if (style.block) {
    ctx.globalAlpha = step.opacity * style.block.opacity
    ctx.fillStyle = style.block.colour
    // One path, so that blocks that touch do not darken each other.
    ctx.beginPath()
    for (const block of set.blocks)
      ctx.roundRect(block.x, block.y, block.width, block.height, Math.min(set.radius, block.height / 2))
    ctx.fill()
  }
  ctx.globalAlpha = step.opacity
  ctx.font = cssFont(set.face)
  ctx.textRendering = 'geometricPrecision'
  ctx.textAlign = 'left'
  ctx.textBaseline = 'alphabetic'
  ctx.lineJoin = 'round'
  const lines = set.lines.map((line) => ({ line, ...pieces(set, line, step.word, measureText) }))
  // All rings before all letters: a ring must not lie over the letter beside it.
  for (const { line, word, others } of lines) {
    if (style.emphasis.kind === 'box') for (const piece of word) drawBox(ctx, set, line, piece, style.emphasis.colour)
    for (const piece of others) drawBehind(ctx, step, set, line, piece, false)
    for (const piece of word) drawBehind(ctx, step, set, line, piece, true)
  }
  for (const { line, word, others } of lines) {
    for (const piece of others) fill(ctx, set, line, piece, style.colour)
    for (const piece of word)
      withSize(ctx, step, line, piece, () =>
        fill(
          ctx,
          set,
          line,
          piece,
          style.emphasis.kind === 'colour' || style.emphasis.kind === 'enlarge' ? style.emphasis.colour : style.colour,
        ),
      )
  }
  ctx.restore()
}

function drawBehind(ctx: Context2D, step: TextStep, set: SetText, line: SetLine, piece: Piece, isWord: boolean): void {
  const { outline, shadow } = step.style
  const em = set.face.size
  const drawn = () => {
    if (shadow) {
      // A shadow's measures are in pixels of the canvas whatever its transform.
      const { a } = ctx.getTransform()
      ctx.save()
      ctx.shadowColor = `${shadow.colour}${Math.round(shadow.opacity * 255)
        .toString(16)
        .padStart(2, '0')}`
      ctx.shadowBlur = shadow.blur * em * a
      ctx.shadowOffsetY = shadow.drop * em * a
      fill(ctx, set, line, piece, shadow.colour)
      ctx.restore()
    }
    if (outline) {
      ctx.direction = piece.right ? 'rtl' : 'ltr'
      ctx.strokeStyle = outline.colour
      ctx.lineWidth = outline.width * em
      ctx.strokeText(set.text.slice(piece.from, piece.to), piece.x, line.baseline)
    }
  }
  if (isWord) withSize(ctx, step, line, piece, drawn)
  else drawn()
}

function fill(ctx: Context2D, set: SetText, line: SetLine, piece: Piece, colour: string): void {
  ctx.direction = piece.right ? 'rtl' : 'ltr'
  ctx.fillStyle = colour
  ctx.fillText(set.text.slice(piece.from, piece.to), piece.x, line.baseline)
}

/** The word being spoken grows about its middle, where the style says so. */
function withSize(ctx: Context2D, { style }: TextStep, line: SetLine, word: Piece, draw: () => void): void {
  if (style.emphasis.kind !== 'enlarge') return draw()
  ctx.save()
  ctx.translate(word.x + word.width / 2, line.baseline)
  ctx.scale(style.emphasis.by, style.emphasis.by)
  ctx.translate(-word.x - word.width / 2, -line.baseline)
  draw()
  ctx.restore()
}

function drawBox(ctx: Context2D, set: SetText, line: SetLine, word: Piece, colour: string): void {
  const em = set.face.size
  ctx.fillStyle = colour
  ctx.beginPath()
  ctx.roundRect(
    word.x - BOX_BESIDE * em,
    line.baseline - 0.86 * em,
    word.width + 2 * BOX_BESIDE * em,
    1.14 * em,
    0.16 * em,
  )
  ctx.fill()
}
