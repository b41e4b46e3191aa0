import type { Composition } from '@/core/compose/composition'
import type { Size } from '@/core/geometry/rect'
import type { Context2D } from '../draw/cropReader'
import type { PlaneHeap } from './planeHeap'
import { halfOf, type Picture, type Plane } from './planes'

/** What was drawn once, as premultiplied planes over the rectangle that it covers; all sides even. */
export interface Overlay extends Size {
  x: number
  y: number
  luma: Plane
  alpha: Plane
  blue: Plane
  red: Plane
  halfAlpha: Plane
  /** From and to in each row of luma, and of the colour differences. */
  spans: number
  halfSpans: number
  /** All of it lies in one stretch, and the spans in another two. */
  memory: number[]
}

/** So much is kept of what was drawn; what moves is drawn anew for every frame. */
const MOST_BYTES = 64e6

/** Words, figures, shadows, borders, masks, gradients: drawn by the canvas, as the preview draws them, once for as long as they stay, and laid over planes from then on. */
export class Overlays {
  private readonly kept = new Map<string, { overlay: Overlay | null; bytes: number }>()
  private bytes = 0
  private canvas: OffscreenCanvasRenderingContext2D | null = null

  constructor(private readonly heap: PlaneHeap) {}

  /** What `draw` puts on a clear canvas of `size`; null when that is nothing. `key` tells one drawing from every other. */
  of(key: string, size: Size, draw: (ctx: Context2D) => void): Overlay | null {
    const full = `${size.width} ${size.height} ${key}`
    const known = this.kept.get(full)
    if (known) {
      // The one that was used last is let go of last.
      this.kept.delete(full)
      this.kept.set(full, known)
      return known.overlay
    }
    const overlay = this.take(size, draw)
    const bytes = overlay ? 4 * overlay.width * overlay.height : 0
    this.makeRoom(bytes)
    this.kept.set(full, { overlay, bytes })
    this.bytes += bytes
    return overlay
  }

  private makeRoom(bytes: number): void {
    for (const [key, old] of this.kept) {
      if (this.bytes + bytes <= MOST_BYTES) return
      this.kept.delete(key)
      this.bytes -= old.bytes
      old.overlay?.memory.forEach((at) => this.heap.give(at))
    }
  }

  private take(size: Size, draw: (ctx: Context2D) => void): Overlay | null {
    const ctx = this.context(size)
    ctx.clearRect(0, 0, size.width, size.height)
    draw(ctx)
    const { data } = ctx.getImageData(0, 0, size.width, size.height)
    const pixels = new Uint32Array(data.buffer)
    const box = coveredBy(pixels, size)
    return box && toPlanes(this.heap, pixels, size.width, box)
  }

  private context({ width, height }: Size): OffscreenCanvasRenderingContext2D {
    if (this.canvas?.canvas.width === width && this.canvas.canvas.height === height) return this.canvas
    const made = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
    if (!made) throw new Error('no 2D canvas')
    return (this.canvas = made)
  }
}

interface Box extends Size {
  x: number
  y: number
}

/** The smallest rectangle on even sides outside which nothing was drawn; null when nothing was. */
function coveredBy(pixels: Uint32Array, { width, height }: Size): Box | null {
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

function toPlanes(heap: PlaneHeap, pixels: Uint32Array, stride: number, box: Box): Overlay {
  const { x, y, width, height } = box
  const half = { width: halfOf(width), height: halfOf(height) }
  const rgba = heap.take(4 * width * height)
  const samples = heap.take(2 * width * height + 3 * half.width * half.height)
  const bytes = heap.bytes(rgba, 4 * width * height)
  for (let row = 0; row < height; row++) {
    const from = (y + row) * stride + x
    bytes.set(new Uint8Array(pixels.buffer, 4 * from, 4 * width), 4 * width * row)
  }
  const luma: Plane = { at: samples, stride: width, width, height }
  const alpha: Plane = { ...luma, at: luma.at + width * height }
  const blue: Plane = { ...half, at: alpha.at + width * height, stride: half.width }
  const red: Plane = { ...blue, at: blue.at + half.width * half.height }
  const halfAlpha: Plane = { ...blue, at: red.at + half.width * half.height }
  heap.kernel.premultiplied(rgba, width, height, luma.at, alpha.at, blue.at, red.at, halfAlpha.at)
  heap.give(rgba)
  const spans = heap.put(spansOf(heap, alpha))
  const halfSpans = heap.put(spansOf(heap, halfAlpha))
  return { ...box, luma, alpha, blue, red, halfAlpha, spans, halfSpans, memory: [samples, spans, halfSpans] }
}

function spansOf(heap: PlaneHeap, { at, stride, width, height }: Plane): Uint32Array {
  const alpha = heap.bytes(at, stride * height)
  const spans = new Uint32Array(2 * height)
  for (let row = 0; row < height; row++) {
    let from = row * stride
    let to = from + width
    while (from < to && alpha[from] === 0) from++
    while (to > from && alpha[to - 1] === 0) to--
    spans[2 * row] = from - row * stride
    spans[2 * row + 1] = to - row * stride
  }
  return spans
}

/** Lays an overlay over a picture. */
export function layOver(heap: PlaneHeap, { y, u, v }: Picture, overlay: Overlay): void {
  const { kernel } = heap
  const { luma, alpha, blue, red, halfAlpha, spans, halfSpans } = overlay
  const at = (plane: Plane, x: number, row: number) => plane.at + row * plane.stride + x
  kernel.layOver(at(y, overlay.x, overlay.y), y.stride, luma.at, alpha.at, luma.stride, spans, luma.height)
  for (const [plane, part] of [[u, blue], [v, red]] as const) kernel.layOver(at(plane, overlay.x / 2, overlay.y / 2), plane.stride, part.at, halfAlpha.at, part.stride, halfSpans, part.height)
}

/** Tells one step on a composition from every other. */
export const keyOfStep = (step: Composition['steps'][number], more: unknown = null) => JSON.stringify([step, more])
