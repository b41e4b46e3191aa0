import { EncodedPacketSink, VideoSampleSink, type VideoSample } from 'mediabunny'
import {
  CERTAIN_AFTER,
  cutsAmong,
  SIGNATURE_HEIGHT,
  SIGNATURE_WIDTH,
  signatureOf,
  type FrameSignature,
} from '@/core/detect/frameSignature'
import { isSceneChange } from '@/core/detect/sceneChange'
import type { Micros } from '@/core/time/micros'
import { CropReader, type DrawCrop } from '../draw/cropReader'
import { codingOf, FrameShrinker } from '../draw/frameShrinker'
import type { Source } from '../source/openSource'

const SIGNATURE_SIZE = { width: SIGNATURE_WIDTH, height: SIGNATURE_HEIGHT }

/** Whether a frame begins a shot is told by those about it too. */
const AROUND_MICROS = 300_000

/** The first frame of a shot, recording time, and whether nothing goes on of what was there before. */
export interface ShotCut {
  micros: Micros
  isSceneChange: boolean
}

interface SeenFrame {
  micros: Micros
  signature: FrameSignature
}

/** After so many frames it is told whether a cut has been passed. */
const CHECK_EVERY = 4

/** Compares frames of a recording, and finds the very frame with which a shot begins. */
export class CutFinder {
  private readonly reader = new CropReader()
  private readonly shrinker = new FrameShrinker()
  private readonly small = new OffscreenCanvas(SIGNATURE_WIDTH, SIGNATURE_HEIGHT).getContext('2d', {
    willReadFrequently: true,
  })

  constructor(private readonly source: Source) {}

  signature(whole: DrawCrop): FrameSignature {
    if (!this.small) throw new Error('no 2D canvas')
    whole(this.small, { x: 0, y: 0, width: SIGNATURE_WIDTH, height: SIGNATURE_HEIGHT })
    return signatureOf(this.small.getImageData(0, 0, SIGNATURE_WIDTH, SIGNATURE_HEIGHT).data)
  }

  /** The signature of a frame that nothing else is wanted of: by far the quickest way. */
  async signatureOf(sample: VideoSample): Promise<FrameSignature> {
    const frame = sample.rotation === 0 && !sample.flip ? sample.toVideoFrame() : null
    try {
      const coding = frame && codingOf(frame)
      if (coding) return signatureOf(await this.shrinker.shrink(frame, coding, SIGNATURE_SIZE))
    } finally {
      frame?.close()
    }
    this.reader.begin()
    return this.signature(await this.reader.readWhole(sample))
  }

  /**
   * First frames of shots after one frame and up to another, or the first of them, by looking at all frames between
   * and a few more. Stops with an AbortError when `signal` says so.
   */
  async between(from: Micros, to: Micros, signal: AbortSignal, wanted: 'all' | 'first' = 'all'): Promise<ShotCut[]> {
    const frames: SeenFrame[] = []
    for await (const sample of new VideoSampleSink(this.source.video).samples(
      await this.beginning(from),
      this.source.toContainer(to + AROUND_MICROS),
    )) {
      try {
        signal.throwIfAborted()
        frames.push({
          micros: this.source.toRecording(sample.timestamp),
          signature: await this.signatureOf(sample),
        })
      } finally {
        sample.close()
      }
      const certain = frames.length - CERTAIN_AFTER
      if (wanted === 'first' && frames.length % CHECK_EVERY === 0) {
        const [first] = shotCuts(frames, from, to).filter(({ micros }) => micros < (frames[certain]?.micros ?? 0))
        if (first) return [first]
      }
    }
    return shotCuts(frames, from, to)
  }

  /**
   * Where to begin for what comes after a frame, container seconds: a little before it, but not before a key frame
   * that lies between, since for that all of another group of frames would be decoded.
   */
  private async beginning(from: Micros): Promise<number> {
    const key = await new EncodedPacketSink(this.source.video).getKeyPacket(this.source.toContainer(from), {
      metadataOnly: true,
    })
    return Math.max(this.source.toContainer(from - AROUND_MICROS), key?.timestamp ?? -Infinity)
  }
}

/** The cuts after one frame and up to another among frames one after the other. */
function shotCuts(frames: readonly SeenFrame[], from: Micros, to: Micros): ShotCut[] {
  return cutsAmong(frames.map((f) => f.signature)).flatMap((i) => {
    const [before, frame] = [frames[i - 1], frames[i]]
    if (!before || !frame || frame.micros <= from || frame.micros > to) return []
    return { micros: frame.micros, isSceneChange: isSceneChange(before.signature, frame.signature) }
  })
}
