import type { VideoSample } from 'mediabunny'
import type { Rect } from '@/core/geometry/rect'
import type { PlaneHeap } from './planeHeap'
import { bytesOf, halfOf, layoutOf, takePicture, type Picture } from './planes'

/**
 * Whether a frame's planes can be used as they are: 8 bit, 4:2:0, BT.709 and limited range as every file of ours is,
 * upright, square pixels. All else is the canvas's.
 */
export function isPlain(sample: VideoSample): boolean {
  const { format, colorSpace, rotation, flip, squarePixelWidth, visibleRect } = sample
  return (
    (format === 'I420' || format === 'NV12') &&
    colorSpace.matrix === 'bt709' &&
    colorSpace.fullRange === false &&
    rotation === 0 &&
    !flip &&
    squarePixelWidth === visibleRect.width
  )
}

/**
 * Copies a part of a plain frame into the kernel's memory. `part` lies in the visible picture, on even pixels;
 * whoever calls gives the picture back.
 */
export async function copyIn(heap: PlaneHeap, sample: VideoSample, part: Rect): Promise<Picture> {
  const frame = sample.toVideoFrame()
  const rect = {
    x: sample.visibleRect.left + part.x,
    y: sample.visibleRect.top + part.y,
    width: part.width,
    height: part.height,
  }
  const picture = takePicture(heap, part)
  try {
    if (frame.format === 'I420') {
      await frame.copyTo(heap.bytes(picture.y.at, bytesOf(part)), { rect, layout: layoutOf(picture) })
      return picture
    }
    const { y, u, v } = picture
    const pairs = { stride: 2 * u.stride, bytes: 2 * u.stride * halfOf(part.height) }
    const at = heap.take(y.stride * part.height + pairs.bytes)
    await frame.copyTo(heap.bytes(at, y.stride * part.height + pairs.bytes), {
      rect,
      layout: [
        { offset: 0, stride: y.stride },
        { offset: y.stride * part.height, stride: pairs.stride },
      ],
    })
    heap.kernel.copy(y.at, y.stride, at, y.stride, part.width, part.height)
    heap.kernel.split(u.at, v.at, u.stride, at + y.stride * part.height, pairs.stride, u.width, u.height)
    heap.give(at)
    return picture
  } finally {
    frame.close()
  }
}
