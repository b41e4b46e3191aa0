import type { Size } from '@/core/geometry/rect'
import type { Drawn } from '../draw/overlays'
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

/** What was drawn, in the kernel's memory, until its memory is given back. */
export function toPlanes(heap: PlaneHeap, { pixels, stride, box }: Drawn): Overlay {
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
  for (const [plane, part] of [
    [u, blue],
    [v, red],
  ] as const)
    kernel.layOver(
      at(plane, overlay.x / 2, overlay.y / 2),
      plane.stride,
      part.at,
      halfAlpha.at,
      part.stride,
      halfSpans,
      part.height,
    )
}
