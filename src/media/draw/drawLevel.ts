import type { Step } from '@/core/compose/composition'
import type { Context2D } from './cropReader'

/** Of the room that a bar has, what is left between two. */
const BETWEEN = 0.35
/** A line's thickness, and the height of a bar at silence, as shares of the figure's height. */
const THIN = 0.06

/**
 * Draws how loud it is: bars about the middle of their place, or a line through it that keeps within it. `heights`:
 * 0..1, oldest first.
 */
export function drawLevel(
  ctx: Context2D,
  { rect, form, colour, opacity }: Extract<Step, { kind: 'level' }>,
  scale: { x: number; y: number },
  heights: readonly number[],
): void {
  const [x, y, width, height] = [rect.x * scale.x, rect.y * scale.y, rect.width * scale.x, rect.height * scale.y]
  const each = width / heights.length
  const thin = THIN * height
  ctx.save()
  ctx.globalAlpha = opacity
  ctx.fillStyle = colour
  ctx.strokeStyle = colour
  ctx.beginPath()
  if (form === 'bars') {
    for (const [i, level] of heights.entries()) {
      const bar = Math.max(thin, level * height)
      ctx.roundRect(
        x + (i + BETWEEN / 2) * each,
        y + (height - bar) / 2,
        each * (1 - BETWEEN),
        bar,
        (each * (1 - BETWEEN)) / 2,
      )
    }
    ctx.fill()
  } else {
    ctx.lineWidth = thin
    ctx.lineJoin = 'round'
    const room = height - thin
    heights.forEach((level, i) => ctx.lineTo(x + (i + 0.5) * each, y + height - thin / 2 - level * room))
    ctx.stroke()
  }
  ctx.restore()
}
