import { VideoSampleSink } from 'mediabunny'
import {
  cutsAmong,
  SIGNATURE_HEIGHT,
  SIGNATURE_WIDTH,
  signatureOf,
  type FrameSignature,
} from '@/core/detect/frameSignature'
import { isSceneChange } from '@/core/detect/sceneChange'
import type { Micros } from '@/core/time/micros'
import { CropReader, type DrawCrop } from '../draw/cropReader'
import type { Source } from '../source/openSource'

/** Whether a frame begins a shot is told by those about it too. */
const AROUND_MICROS = 300_000

/** The first frame of a shot, recording time, and whether nothing goes on of what was there before. */
export interface ShotCut {
  micros: Micros
  isSceneChange: boolean
}

/** Compares frames of a recording, and finds the very frame with which a shot begins. */
export class CutFinder {
  private readonly reader = new CropReader()
  private readonly small = new OffscreenCanvas(SIGNATURE_WIDTH, SIGNATURE_HEIGHT).getContext('2d', {
    willReadFrequently: true,
  })

  constructor(private readonly source: Source) {}

  signature(whole: DrawCrop): FrameSignature {
    if (!this.small) throw new Error('no 2D canvas')
    whole(this.small, { x: 0, y: 0, width: SIGNATURE_WIDTH, height: SIGNATURE_HEIGHT })
    return signatureOf(this.small.getImageData(0, 0, SIGNATURE_WIDTH, SIGNATURE_HEIGHT).data)
  }

  /**
   * First frames of shots after one frame and up to another, by looking at all frames between and a few more. Stops
   * with an AbortError when `signal` says so.
   */
  async between(from: Micros, to: Micros, signal: AbortSignal): Promise<ShotCut[]> {
    const frames: { micros: Micros; signature: FrameSignature }[] = []
    for await (const sample of new VideoSampleSink(this.source.video).samples(
      this.source.toContainer(from - AROUND_MICROS),
      this.source.toContainer(to + AROUND_MICROS),
    )) {
      try {
        signal.throwIfAborted()
        this.reader.begin()
        const micros = this.source.toRecording(sample.timestamp)
        frames.push({ micros, signature: this.signature(await this.reader.readWhole(sample)) })
      } finally {
        sample.close()
      }
    }
    return cutsAmong(frames.map((f) => f.signature)).flatMap((i) => {
      const [before, frame] = [frames[i - 1], frames[i]]
      if (!before || !frame || frame.micros <= from || frame.micros > to) return []
      return { micros: frame.micros, isSceneChange: isSceneChange(before.signature, frame.signature) }
    })
  }
}
