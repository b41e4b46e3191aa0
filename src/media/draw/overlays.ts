import type { Step } from '@/core/compose/composition'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Material } from './composer'
import type { Context2D } from './cropReader'
import { drawSteps } from './drawSteps'

/**
 * What a canvas holds: RGBA in words, not premultiplied, rows of `stride`, and the rectangle on even sides outside
 * which there is nothing.
 */
export interface Drawn {
  pixels: Uint32Array<ArrayBuffer>
  stride: number
  box: Rect
}

/** How what was drawn is kept by whoever lays it over pictures. */
export interface Keeper<T> {
  keep: (drawn: Drawn) => T
  letGo: (kept: T) => void
}

/** So much is kept of what was drawn; what moves is drawn anew for every frame. */
const MAX_BYTES = 64e6

/**
 * Words, figures, shadows, borders, masks, gradients: drawn by the canvas, as the preview draws them, once for as
 * long as they stay, and laid over planes from then on.
 */
export class Overlays<T> {
  private readonly kept = new Map<string, { overlay: T | null; bytes: number }>()
  private bytes = 0
  private canvas: OffscreenCanvasRenderingContext2D | null = null

  constructor(private readonly keeper: Keeper<T>) {}

  /**
   * What `draw` puts on a clear canvas of `size`; null when that is nothing. `key` tells one drawing from every
   * other.
   */
  of(key: string, size: Size, draw: (ctx: Context2D) => void): T | null {
    const full = `${size.width} ${size.height} ${key}`
    const cached = this.kept.get(full)
    if (cached) {
      // The one that was used last is let go of last.
      this.kept.delete(full)
      this.kept.set(full, cached)
      return cached.overlay
    }
    const drawn = this.draw(size, draw)
    const bytes = drawn ? 4 * drawn.box.width * drawn.box.height : 0
    this.makeRoom(bytes)
    const overlay = drawn && this.keeper.keep(drawn)
    this.kept.set(full, { overlay, bytes })
    this.bytes += bytes
    return overlay
  }

  private makeRoom(bytes: number): void {
    for (const [key, old] of this.kept) {
      if (this.bytes + bytes <= MAX_BYTES) return
      this.kept.delete(key)
      this.bytes -= old.bytes
      if (old.overlay) this.keeper.letGo(old.overlay)
    }
  }

  private draw(size: Size, draw: (ctx: Context2D) => void): Drawn | null {
    const ctx = this.context(size)
    ctx.clearRect(0, 0, size.width, size.height)
    draw(ctx)
    const { data } = ctx.getImageData(0, 0, size.width, size.height)
    const pixels = new Uint32Array(data.buffer)
    const box = coveredBy(pixels, size)
    return box && { pixels, stride: size.width, box }
  }

  private context({ width, height }: Size): OffscreenCanvasRenderingContext2D {
    if (this.canvas?.canvas.width === width && this.canvas.canvas.height === height) return this.canvas
    const made = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
    if (!made) throw new Error('no 2D canvas')
    return (this.canvas = made)
  }
}

/** The smallest rectangle on even sides outside which nothing was drawn; null when nothing was. */
function coveredBy(pixels: Uint32Array, { width, height }: Size): Rect | null {
  const isClear = (from: number, to: number, step: number) => {
    for (let i = from; i < to; i += step) if ((pixels[i] ?? 0) >>> 24 > 0) return false
    return true
  }
  let top = 0
  while (top < height && isClear(top * width, (top + 1) * width, 1)) top++
  if (top === height) return null
  let bottom = height
  while (isClear((bottom - 1) * width, bottom * width, 1)) bottom--
  let left = 0
  while (isClear(top * width + left, bottom * width, width)) left++
  let right = width
  while (isClear(top * width + right - 1, bottom * width, width)) right--
  const x = left & ~1
  const y = top & ~1
  return { x, y, width: Math.min(width, (right + 1) & ~1) - x, height: Math.min(height, (bottom + 1) & ~1) - y }
}

/**
 * A step that shows no footage, drawn on a ground of size `out` for a composition of `size`; null when there is
 * nothing to see of it.
 */
export function overlayOf<T>(
  overlays: Overlays<T>,
  out: Size,
  step: Step,
  size: Size,
  { figureAt, imageOf }: Material,
): T | null {
  const figure = step.kind === 'level' ? figureAt(step.micros) : null
  return overlays.of(JSON.stringify([step, [size, figure]]), out, (ctx) =>
    drawSteps(ctx, { size, steps: [step] }, { footage: () => null, imageOf, figureAt: () => figure ?? [] }),
  )
}
