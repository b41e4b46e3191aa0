import { AudioSample, type AudioSampleSource } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import { OUTPUT_SAMPLE_RATE, framesAt } from '../sound/stereo'

/** An audio track to write to. `primingFrames`: what its encoder puts before the first sound; the track starts that much before 0 to make up for it. */
export interface SoundTarget {
  track: AudioSampleSource
  primingFrames: number
}

/** Encodes blocks as audio tracks, keeping them ahead of the picture by the amount asked for and no more. */
export class SoundWriter {
  readonly targets = new Set<SoundTarget>()
  private frames = 0
  private done = false

  constructor(private readonly blocks: AsyncGenerator<Float32Array>) {}

  /** Writes until the sound reaches `t` on the output clock, or its end. */
  async writeUpTo(t: Micros): Promise<void> {
    while (!this.done && this.frames < framesAt(t)) {
      const { value, done } = await this.blocks.next()
      if (done) this.done = true
      else await this.write(value)
    }
  }

  async finish(): Promise<void> {
    await this.writeUpTo(Infinity)
  }

  /** Lets go of what is being decoded; for a render that ends early. */
  async close(): Promise<void> {
    await this.blocks.return(undefined)
  }

  private async write(data: Float32Array): Promise<void> {
    if (data.length === 0) return
    const at = this.frames
    this.frames += data.length / 2
    for (const { track, primingFrames } of this.targets) {
      const sample = new AudioSample({ format: 'f32', data: data as Float32Array<ArrayBuffer>, numberOfChannels: 2, sampleRate: OUTPUT_SAMPLE_RATE, timestamp: (at - primingFrames) / OUTPUT_SAMPLE_RATE })
      try {
        await track.add(sample)
      } finally {
        sample.close()
      }
    }
  }
}
