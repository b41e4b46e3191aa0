import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { nullOnError } from '@/diagnostics/note'

/** A picture that can be drawn; one that moves has several frames. */
export interface OpenImage {
  /** The frame at `micros` of its own time; after its end it starts again. */
  at: (micros: Micros) => ImageBitmap
  close: () => void
}

/** All frames of a moving picture together may have so many pixels (4 bytes each); larger ones are kept smaller. */
const MAX_PIXELS = 24_000_000
/** Frames after this many are left out. */
const MAX_FRAMES = 600
/** Of a frame that says nothing, or something that no display shows. */
const USUAL_MICROS = MICROS_PER_SECOND / 10
const MIN_MICROS = MICROS_PER_SECOND / 60

/** Opens a picture file. Rejects for what is not a picture. Memory is bounded whatever the file holds. */
export async function openImage(file: Blob): Promise<OpenImage> {
  const moving = await openMoving(file).catch(nullOnError('opening a picture'))
  if (moving) return moving
  const bitmap = await createImageBitmap(file)
  return { at: () => bitmap, close: () => bitmap.close() }
}

/**
 * A picture with more than one frame, all of them decoded; null for one that stands still, or where the browser
 * cannot tell.
 */
async function openMoving(file: Blob): Promise<OpenImage | null> {
  if (typeof ImageDecoder === 'undefined' || !(await ImageDecoder.isTypeSupported(file.type))) return null
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type: file.type, preferAnimation: true })
  const frames: { bitmap: ImageBitmap; untilMicros: Micros }[] = []
  const close = () => frames.forEach((f) => f.bitmap.close())
  try {
    await decoder.tracks.ready
    await decoder.completed
    const count = Math.min(MAX_FRAMES, decoder.tracks.selectedTrack?.frameCount ?? 1)
    if (count < 2) return null
    let untilMicros = 0
    for (let frameIndex = 0; frameIndex < count; frameIndex++) {
      const { image } = await decoder.decode({ frameIndex })
      untilMicros += Math.max(MIN_MICROS, image.duration ?? USUAL_MICROS)
      const scale = Math.min(1, Math.sqrt(MAX_PIXELS / (count * image.displayWidth * image.displayHeight)))
      const bitmap = await createImageBitmap(
        image,
        scale < 1
          ? {
              resizeWidth: Math.max(1, Math.round(image.displayWidth * scale)),
              resizeHeight: Math.max(1, Math.round(image.displayHeight * scale)),
              resizeQuality: 'high',
            }
          : {},
      )
      image.close()
      frames.push({ bitmap, untilMicros })
    }
    const last = frames.at(-1) as (typeof frames)[number]
    return { at: (micros) => (frames.find((f) => micros % last.untilMicros < f.untilMicros) ?? last).bitmap, close }
  } catch (error) {
    close()
    throw error
  } finally {
    decoder.close()
  }
}
