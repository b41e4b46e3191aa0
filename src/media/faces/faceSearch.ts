import type { VideoSample } from 'mediabunny'
import type { FoundFace } from '@/core/detect/regions/people'
import { shareOfBoth, type Rect, type Size } from '@/core/geometry/rect'
import type { CropReader } from '../draw/cropReader'
import type { FaceFinder } from './faceFinder'

/** Frames are kept this wide at most: a head in a small camera's picture still has some fifty pixels. */
const MAX_WIDTH = 1280

/** The face model takes in pictures of about this size. */
const SEARCHED_WIDTH = 256

/** Boxes that share so much of both are of one face, found in two places. */
const SAME = 0.3

/** A few frames of a recording, kept small, to be searched for faces. */
export class FaceSearch {
  private readonly frames: OffscreenCanvasRenderingContext2D[] = []

  /** Keeps a frame, which is borrowed meanwhile. */
  async keep(frame: VideoSample, reader: CropReader): Promise<void> {
    const { displayWidth, displayHeight } = frame
    const scale = Math.min(1, MAX_WIDTH / displayWidth)
    const [width, height] = [Math.round(displayWidth * scale), Math.round(displayHeight * scale)]
    const ctx = contextOf(width, height)
    reader.begin()
    const draw = await reader.readWhole(frame)
    draw(ctx, { x: 0, y: 0, width, height })
    this.frames.push(ctx)
  }

  /**
   * Faces in `places` (px of a frame of `size`) of each frame that was kept, in the same px; of a face that is found in
   * several places the surest box.
   */
  async find(
    finder: FaceFinder,
    { width }: Size,
    places: readonly Rect[],
    onFrame: (share: number) => void,
    signal: AbortSignal,
  ): Promise<FoundFace[][]> {
    const found: FoundFace[][] = []
    for (const ctx of this.frames) {
      const faces: FoundFace[] = []
      for (const place of places) {
        signal.throwIfAborted()
        for (const face of await finder.find(cutOut(ctx, place, ctx.canvas.width / width)))
          faces.push({
            x: place.x + face.x * place.width,
            y: place.y + face.y * place.height,
            width: face.width * place.width,
            height: face.height * place.height,
            score: face.score,
          })
      }
      found.push(distinct(faces))
      onFrame(found.length / this.frames.length)
    }
    return found
  }
}

function cutOut({ canvas }: OffscreenCanvasRenderingContext2D, place: Rect, scale: number): ImageData {
  const height = Math.max(16, Math.round((SEARCHED_WIDTH * place.height) / place.width))
  const small = contextOf(SEARCHED_WIDTH, height)
  const [x, y, w, h] = [place.x, place.y, place.width, place.height].map((v) => v * scale) as [
    number,
    number,
    number,
    number,
  ]
  small.drawImage(canvas, x, y, w, h, 0, 0, SEARCHED_WIDTH, height)
  return small.getImageData(0, 0, SEARCHED_WIDTH, height)
}

function contextOf(width: number, height: number): OffscreenCanvasRenderingContext2D {
  const ctx = new OffscreenCanvas(width, height).getContext('2d', { alpha: false, willReadFrequently: true })
  if (!ctx) throw new Error('no 2D canvas')
  return ctx
}

/** One box for each face, the surest. */
function distinct(faces: readonly FoundFace[]): FoundFace[] {
  const kept: FoundFace[] = []
  for (const face of [...faces].sort((a, b) => b.score - a.score))
    if (!kept.some((other) => shareOfBoth(other, face) >= SAME)) kept.push(face)
  return kept
}
