import type { Size } from '@/core/geometry/rect'
import type { PlaneHeap } from './planeHeap'

/** Samples of one byte in the kernel's memory. */
export interface Plane {
  at: number
  stride: number
  width: number
  height: number
}

/**
 * A 4:2:0 picture: luma, and both colour differences at half its size, rounded up. All three lie in one stretch of
 * memory.
 */
export interface Picture extends Size {
  y: Plane
  u: Plane
  v: Plane
}

/** Rows begin on multiples of this. */
const STRIDE_STEP = 16

const strideOf = (width: number) => Math.ceil(width / STRIDE_STEP) * STRIDE_STEP

export const halfOf = (length: number) => Math.ceil(length / 2)

export function bytesOf({ width, height }: Size): number {
  return strideOf(width) * height + 2 * strideOf(halfOf(width)) * halfOf(height)
}

/**
 * A picture of that size in memory that is taken for it; given back by {@link givePicture}. What is in it is not
 * known.
 */
export function takePicture(heap: PlaneHeap, { width, height }: Size): Picture {
  const at = heap.take(bytesOf({ width, height }))
  const half = { stride: strideOf(halfOf(width)), width: halfOf(width), height: halfOf(height) }
  const y = { at, stride: strideOf(width), width, height }
  const u = { ...half, at: at + y.stride * height }
  return { width, height, y, u, v: { ...half, at: u.at + u.stride * u.height } }
}

export function givePicture(heap: PlaneHeap, { y }: Picture): void {
  heap.give(y.at)
}

/** The planes as WebCodecs wants them told, counted from the luma's first byte. */
export function layoutOf({ y, u, v }: Picture): PlaneLayout[] {
  return [y, u, v].map(({ at, stride }) => ({ offset: at - y.at, stride }))
}

export const planesOf = ({ y, u, v }: Picture): readonly [Plane, Plane, Plane] => [y, u, v]
