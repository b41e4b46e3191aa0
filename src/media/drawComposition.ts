import type { VideoSample } from 'mediabunny'
import { assertNever } from '@/core/assert'
import type { Composition, Feed, PictureStep, Step } from '@/core/compose/composition'
import type { Rect, Size } from '@/core/geometry/rect'

export type Context2D = OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D

/** Planar formats whose frames can be narrowed to a crop before conversion; the rest is drawn whole. */
const NARROWABLE: ReadonlySet<string | null> = new Set(['I420', 'NV12'])

/**
 * Draws a composition into the whole of `ctx`'s canvas, whatever its size: the one way in which preview, stills and render
 * are drawn. `frameOf` gives the decoded frame of a feed, borrowed for the call, or null when there is none.
 */
export function drawComposition(ctx: Context2D, composition: Composition, frameOf: (feed: Feed) => VideoSample | null): void {
  drawSteps(ctx, composition.steps, composition.size, frameOf)
}

function drawSteps(ctx: Context2D, steps: readonly Step[], size: Size, frameOf: (feed: Feed) => VideoSample | null): void {
  const { width, height } = ctx.canvas
  const sx = width / size.width
  const sy = height / size.height
  for (const step of steps) {
    switch (step.kind) {
      case 'backdrop':
        ctx.fillStyle = step.colour
        ctx.fillRect(0, 0, width, height)
        break
      case 'picture': {
        const frame = frameOf(step.feed)
        if (frame) drawPicture(ctx, frame, step, onPixels(step.dest, sx, sy))
        break
      }
      case 'layer': {
        const layer = layerFor(ctx)
        drawSteps(layer, step.steps, size, frameOf)
        ctx.globalAlpha = step.opacity
        ctx.drawImage(layer.canvas, Math.round(step.offset.x * sx), Math.round(step.offset.y * sy))
        ctx.globalAlpha = 1
        break
      }
      case 'tint':
        ctx.globalAlpha = step.opacity
        ctx.fillStyle = step.colour
        ctx.fillRect(0, 0, width, height)
        ctx.globalAlpha = 1
        break
      default:
        assertNever(step)
    }
  }
}

/** One spare canvas for each that is drawn on: layers are never nested, and are drawn over as soon as they are made. */
const layers = new WeakMap<Context2D, OffscreenCanvasRenderingContext2D>()

function layerFor(ctx: Context2D): OffscreenCanvasRenderingContext2D {
  const { width, height } = ctx.canvas
  const known = layers.get(ctx)
  if (known && known.canvas.width === width && known.canvas.height === height) return known
  const made = new OffscreenCanvas(width, height).getContext('2d', { alpha: false })
  if (!made) throw new Error('no 2D canvas')
  layers.set(ctx, made)
  return made
}

/** A canvas rectangle on a canvas of another size: edges are rounded, so that neighbours still meet. */
function onPixels(rect: Rect, sx: number, sy: number): Rect {
  const x = Math.round(rect.x * sx)
  const y = Math.round(rect.y * sy)
  return { x, y, width: Math.round((rect.x + rect.width) * sx) - x, height: Math.round((rect.y + rect.height) * sy) - y }
}

function drawPicture(ctx: Context2D, frame: VideoSample, { crop }: PictureStep, dest: Rect): void {
  ctx.imageSmoothingEnabled = true
  // Enlarging with the best filter costs no more than with the simplest here; for small previews mipmaps keep edges calm.
  ctx.imageSmoothingQuality = dest.width < crop.width ? 'medium' : 'high'
  const plain = frame.rotation === 0 && !frame.flip && frame.squarePixelWidth === frame.visibleRect.width
  if (!plain || !NARROWABLE.has(frame.format)) {
    frame.draw(ctx, crop.x, crop.y, crop.width, crop.height, dest.x, dest.y, dest.width, dest.height)
    return
  }
  drawNarrowed(ctx, frame, crop, dest)
}

/**
 * Converts only the crop's own pixels to RGB, not the whole frame: a third less time for two panels of a 1080p frame. The
 * narrowed frame starts on even pixels, for the sake of its half-size colour planes.
 */
function drawNarrowed(ctx: Context2D, sample: VideoSample, crop: Rect, dest: Rect): void {
  const frame = sample.toVideoFrame()
  const visible = sample.visibleRect
  const x = 2 * Math.floor(crop.x / 2)
  const y = 2 * Math.floor(crop.y / 2)
  const width = Math.min(visible.width - x, 2 * Math.ceil((crop.x + crop.width - 1e-6) / 2) - x)
  const height = Math.min(visible.height - y, 2 * Math.ceil((crop.y + crop.height - 1e-6) / 2) - y)
  const narrowed = new VideoFrame(frame, { visibleRect: { x: visible.left + x, y: visible.top + y, width, height } })
  ctx.drawImage(narrowed, crop.x - x, crop.y - y, crop.width, crop.height, dest.x, dest.y, dest.width, dest.height)
  narrowed.close()
  frame.close()
}
