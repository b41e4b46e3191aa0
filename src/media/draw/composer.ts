import type { VideoSample } from 'mediabunny'
import { assertNever } from '@/core/assert'
import type { Composition, Feed, PictureStep, Step } from '@/core/compose/composition'
import { picturesOf } from '@/core/compose/composition'
import { areaOf, contains, type Rect, type Size } from '@/core/geometry/rect'
import { drawOutlined } from './drawOutlined'
import { CropReader, type Context2D, type DrawCrop } from './cropReader'

/** A composition and the canvas that it fills, whatever the canvas's size. */
export interface Target {
  ctx: OffscreenCanvasRenderingContext2D
  composition: Composition
}

/** Draws compositions: the one way in which preview, stills and render are drawn. */
export class Composer {
  private readonly reader = new CropReader()
  /** What has been read since the reader began. Frames are told apart, not drawn from, once they may be closed. */
  private read: { frame: VideoSample; feed: string; crop: Rect; draw: DrawCrop }[] = []

  /**
   * Draws every target. `frameOf` gives the decoded frame of a feed, borrowed until this is done, or null when there is none. All pixels are
   * read first, then drawn at one go: a canvas on screen never shows half a picture. Not for concurrent use.
   */
  async draw(targets: readonly Target[], frameOf: (feed: Feed) => VideoSample | null): Promise<void> {
    // The largest first: a crop that lies in one that was read already, such as the whole frame beside a preview, needs no reading of its own.
    const steps = targets.flatMap((t) => picturesOf(t.composition)).sort((a, b) => areaOf(b.crop) - areaOf(a.crop))
    const sourceOf = (step: PictureStep, frame: VideoSample) => this.read.find((r) => r.frame === frame && r.feed === feedKey(step.feed) && contains(r.crop, step.crop))
    // While a region is dragged, the frames stay: what was read of them for the picture before serves for this one.
    if (!steps.every((step) => isNothingOr(frameOf(step.feed), (frame) => sourceOf(step, frame) !== undefined))) {
      this.reader.begin()
      this.read = []
    }
    const crops = new Map<string, DrawStep>()
    for (const step of steps) {
      const frame = frameOf(step.feed)
      if (!frame || crops.has(keyOf(step))) continue
      let source = sourceOf(step, frame)
      if (!source) this.read.push((source = { frame, feed: feedKey(step.feed), crop: step.crop, draw: await this.reader.read(frame, step.crop) }))
      const { draw } = source
      crops.set(keyOf(step), (ctx, dest) => draw(ctx, dest, step.crop))
    }
    for (const { ctx, composition } of targets) drawSteps(ctx, composition.steps, composition.size, crops)
  }
}

const isNothingOr = <T>(value: T | null, test: (value: T) => boolean) => value === null || test(value)

type DrawStep = (ctx: Context2D, dest: Rect) => void

const feedKey = ({ lane, recordingId, micros }: Feed) => `${lane} ${recordingId} ${micros}`
const keyOf = ({ feed, crop }: PictureStep) => `${feedKey(feed)} ${crop.x} ${crop.y} ${crop.width} ${crop.height}`

function drawSteps(ctx: Context2D, steps: readonly Step[], size: Size, crops: ReadonlyMap<string, DrawStep>): void {
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
        const draw = crops.get(keyOf(step))
        if (draw) drawOutlined(ctx, step.outline, onPixels(step.dest, sx, sy), sx, (dest) => draw(ctx, dest))
        break
      }
      case 'layer': {
        const layer = layerFor(ctx)
        drawSteps(layer, step.steps, size, crops)
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
