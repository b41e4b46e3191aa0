import { assertNever } from '@/core/assert'
import type { Composition, FootageStep, Step } from '@/core/compose/composition'
import { largestWithin } from '@/core/geometry/fit'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Material } from './composer'
import type { Context2D } from './cropReader'
import { drawBlurred } from './drawBlurred'
import { drawLevel } from './drawLevel'
import { drawOutlined } from './drawOutlined'
import { drawText } from './drawText'
import { drawTurned } from './drawTurned'
import { spareCanvas } from './spareCanvas'

/** Draws the crop of a step, as it was read, into a rectangle. */
export type DrawFootage = (ctx: Context2D, dest: Rect) => void

/** What has been made ready for drawing; null where there is nothing to show. */
export interface Ready {
  footage: (step: FootageStep) => DrawFootage | null
  imageOf: Material['imageOf']
  figureAt: Material['figureAt']
}

/** Draws a composition's steps in order on a canvas of any size. */
export function drawSteps(ctx: Context2D, { steps, size }: Composition, ready: Ready): void {
  const { width, height } = ctx.canvas
  const scale = { x: width / size.width, y: height / size.height }
  for (const step of steps) drawStep(ctx, step, size, scale, ready)
}

function drawStep(ctx: Context2D, step: Step, size: Size, scale: { x: number; y: number }, ready: Ready): void {
  const { width, height } = ctx.canvas
  switch (step.kind) {
    case 'colour':
      ctx.fillStyle = step.colour
      ctx.fillRect(0, 0, width, height)
      break
    case 'gradient':
      ctx.fillStyle = gradientOver(ctx, step)
      ctx.fillRect(0, 0, width, height)
      break
    case 'image': {
      const image = ready.imageOf(step.imageFileId, step.micros)
      if (image) drawImage(ctx, image, step.dest && onPixels(step.dest, scale), step.opacity)
      break
    }
    case 'blur': {
      const footage = ready.footage(step)
      if (footage) drawBlurred(ctx, size, step.radius, footage)
      break
    }
    case 'picture': {
      const footage = ready.footage(step)
      if (!footage) break
      ctx.globalAlpha = step.opacity
      drawOutlined(ctx, step.outline, onPixels(step.dest, scale), scale.x, (dest) =>
        drawTurned(ctx, step.orientation, dest, footage),
      )
      ctx.globalAlpha = 1
      break
    }
    case 'layer': {
      const layer = layerFor(ctx, step.steps)
      for (const inner of step.steps) drawStep(layer, inner, size, scale, ready)
      const window = onPixels(step.window, scale)
      ctx.save()
      ctx.beginPath()
      ctx.rect(window.x, window.y, window.width, window.height)
      ctx.clip()
      ctx.globalAlpha = step.opacity
      ctx.drawImage(layer.canvas, Math.round(step.offset.x * scale.x), Math.round(step.offset.y * scale.y))
      ctx.restore()
      break
    }
    case 'tint':
      ctx.globalAlpha = step.opacity
      ctx.fillStyle = step.colour
      ctx.fillRect(0, 0, width, height)
      ctx.globalAlpha = 1
      break
    case 'block':
      ctx.globalAlpha = step.opacity
      ctx.fillStyle = step.colour
      ctx.fillRect(step.rect.x * scale.x, step.rect.y * scale.y, step.rect.width * scale.x, step.rect.height * scale.y)
      ctx.globalAlpha = 1
      break
    case 'level':
      drawLevel(ctx, step, scale, ready.figureAt(step.micros))
      break
    case 'text':
      drawText(ctx, step, size, scale)
      break
    default:
      assertNever(step)
  }
}

/** A canvas for a layer's steps: one that can be seen through, and is clear, unless the first of them fills it. */
function layerFor(ctx: Context2D, [first]: readonly Step[]): Context2D {
  if (first && FILLING.has(first.kind)) return spareCanvas(ctx, 'layer', ctx.canvas)
  const layer = spareCanvas(ctx, 'clear layer', ctx.canvas, true)
  layer.clearRect(0, 0, layer.canvas.width, layer.canvas.height)
  return layer
}

const FILLING: ReadonlySet<Step['kind']> = new Set(['colour', 'gradient', 'blur', 'image'])

/** A canvas rectangle on a canvas of another size: edges are rounded, so that neighbours still meet. */
export function onPixels(rect: Rect, scale: { x: number; y: number }): Rect {
  const x = Math.round(rect.x * scale.x)
  const y = Math.round(rect.y * scale.y)
  return {
    x,
    y,
    width: Math.round((rect.x + rect.width) * scale.x) - x,
    height: Math.round((rect.y + rect.height) * scale.y) - y,
  }
}

/** From corner to corner along its direction, as gradients in CSS are. */
function gradientOver(ctx: Context2D, { from, to, degrees }: Extract<Step, { kind: 'gradient' }>): CanvasGradient {
  const { width, height } = ctx.canvas
  const angle = (degrees * Math.PI) / 180
  const [dx, dy] = [-Math.sin(angle), Math.cos(angle)]
  const half = (Math.abs(dx) * width + Math.abs(dy) * height) / 2
  const gradient = ctx.createLinearGradient(
    width / 2 - dx * half,
    height / 2 - dy * half,
    width / 2 + dx * half,
    height / 2 + dy * half,
  )
  gradient.addColorStop(0, from)
  gradient.addColorStop(1, to)
  return gradient
}

/** A picture in its place, or over all of a canvas; cut where its proportion differs. */
function drawImage(ctx: Context2D, image: ImageBitmap, place: Rect | null, opacity: number): void {
  const dest = place ?? { x: 0, y: 0, width: ctx.canvas.width, height: ctx.canvas.height }
  const part = largestWithin(image, dest.width / dest.height)
  ctx.imageSmoothingEnabled = true
  ctx.imageSmoothingQuality = 'high'
  ctx.globalAlpha = opacity
  ctx.drawImage(
    image,
    (image.width - part.width) / 2,
    (image.height - part.height) / 2,
    part.width,
    part.height,
    dest.x,
    dest.y,
    dest.width,
    dest.height,
  )
  ctx.globalAlpha = 1
}
