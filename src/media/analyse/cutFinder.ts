import { VideoSampleSink } from 'mediabunny'
import {
  isCut,
  SIGNATURE_HEIGHT,
  SIGNATURE_WIDTH,
  signatureOf,
  type FrameSignature,
} from '@/core/detect/frameSignature'
import { isSceneChange } from '@/core/detect/sceneChange'
import type { Micros } from '@/core/time/micros'
import { CropReader, type DrawCrop } from '../draw/cropReader'
import type { Source } from '../source/openSource'

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
   * First frames of shots after one frame, which looks like `before`, and up to another, by looking at all frames
   * between. Stops with an AbortError when `signal` says so.
   */
  async between(from: Micros, to: Micros, before: FrameSignature, signal: AbortSignal): Promise<ShotCut[]> {
    const cuts: ShotCut[] = []
    let last = before
    for await (const sample of new VideoSampleSink(this.source.video).samples(
      this.source.toContainer(from),
      this.source.toContainer(to) + 0.001,
    )) {
      try {
        signal.throwIfAborted()
        this.reader.begin()
        const signature = this.signature(await this.reader.readWhole(sample))
        if (isCut(last, signature))
          cuts.push({
            micros: this.source.toRecording(sample.timestamp),
            isSceneChange: isSceneChange(last, signature),
          })
        last = signature
      } finally {
        sample.close()
      }
    }
    return cuts
  }
}
