import { AudioSample, type AudioSampleSource } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import { OUTPUT_SAMPLE_RATE, framesAt } from '../sound/stereo'

/** Encodes blocks as an audio track, keeping it ahead of the picture by the amount asked for and no more. */
export class SoundWriter {
  private frames = 0
  private done = false

  /** `primingFrames`: what the encoder puts before the first sound; the track starts that much before 0 to make up for it. */
  constructor(private readonly blocks: AsyncGenerator<Float32Array>, private readonly target: AudioSampleSource, private readonly primingFrames: number) {}

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
    const sample = new AudioSample({ format: 'f32', data: data as Float32Array<ArrayBuffer>, numberOfChannels: 2, sampleRate: OUTPUT_SAMPLE_RATE, timestamp: (this.frames - this.primingFrames) / OUTPUT_SAMPLE_RATE })
    this.frames += data.length / 2
    try {
      await this.target.add(sample)
    } finally {
      sample.close()
    }
  }
}
