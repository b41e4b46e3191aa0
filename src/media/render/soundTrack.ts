import {
  AudioSample,
  AudioSampleSource,
  Mp4OutputFormat,
  NullTarget,
  Output,
  Quality,
  type EncodedPacket,
} from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { OUTPUT_SAMPLE_RATE, framesAt } from '../sound/stereo'

/** The shipped AAC encoder (libavcodec's) gives out 1024 samples of priming before the first sound. */
const AAC_PRIMING_FRAMES = 1024

/** How sound is coded; `bitrate` in bits a second. */
export interface SoundCoding {
  codec: 'aac' | 'opus'
  bitrate: number
}

/** A file that coded sound goes to. */
export interface SoundTarget {
  coding: SoundCoding
  /** Takes a packet; resolves when it can do with another. Never rejects: what befalls a file is the file's to tell. */
  take(packet: EncodedPacket, meta: EncodedAudioChunkMetadata | undefined): Promise<void>
}

/** Codes the same sound once for all files that want it coded alike. */
class SoundCoder {
  readonly targets = new Set<SoundTarget>()
  /** Only there to have an encoder; in fragments, so that it keeps nothing. */
  private readonly output = new Output({
    format: new Mp4OutputFormat({ fastStart: 'fragmented' }),
    target: new NullTarget(),
  })
  private readonly source: AudioSampleSource
  /** What was coded has been taken by every file. */
  private taken: Promise<unknown> = Promise.resolve()

  private constructor(readonly coding: SoundCoding) {
    const { codec, bitrate } = coding
    this.source = new AudioSampleSource({
      codec,
      quality: new Quality({ bitrate }),
      onEncodedPacket: (packet, meta) => this.give(packet, meta),
    })
    this.output.addAudioTrack(this.source)
  }

  static async start(coding: SoundCoding): Promise<SoundCoder> {
    const coder = new SoundCoder(coding)
    await coder.output.start()
    return coder
  }

  /**
   * Codes interleaved stereo that begins at frame `at` of the highlight. The track starts before 0 by what the
   * encoder puts before the first sound.
   */
  async add(data: Float32Array<ArrayBuffer>, at: number): Promise<void> {
    const priming = this.coding.codec === 'aac' ? AAC_PRIMING_FRAMES : 0
    const sample = new AudioSample({
      format: 'f32',
      data,
      numberOfChannels: 2,
      sampleRate: OUTPUT_SAMPLE_RATE,
      timestamp: (at - priming) / OUTPUT_SAMPLE_RATE,
    })
    try {
      await this.source.add(sample)
    } finally {
      sample.close()
    }
    await this.taken
  }

  async finish(): Promise<void> {
    await this.output.finalize()
    await this.taken
  }

  async cancel(): Promise<void> {
    await this.output.cancel().catch(quietly('coding sound'))
  }

  private give(packet: EncodedPacket, meta: EncodedAudioChunkMetadata | undefined): void {
    this.taken = Promise.all([this.taken, ...[...this.targets].map((target) => target.take(packet, meta))])
  }
}

/** Codes blocks for the files of a job, keeping them ahead of the picture by the amount asked for and no more. */
export class SoundWriter {
  private coders: SoundCoder[] = []
  private frames = 0
  private done = false

  constructor(private readonly blocks: AsyncGenerator<Float32Array>) {}

  /** A file that is written to from the start on. */
  async add(target: SoundTarget): Promise<void> {
    let coder = this.coders.find(
      ({ coding }) => coding.codec === target.coding.codec && coding.bitrate === target.coding.bitrate,
    )
    if (!coder) this.coders.push((coder = await SoundCoder.start(target.coding)))
    coder.targets.add(target)
  }

  /** A file that is written to no more. */
  async drop(target: SoundTarget): Promise<void> {
    for (const coder of this.coders) coder.targets.delete(target)
    const idle = this.coders.filter(({ targets }) => targets.size === 0)
    this.coders = this.coders.filter(({ targets }) => targets.size > 0)
    for (const coder of idle) await coder.cancel()
  }

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
    for (let [coder] = this.coders; coder; [coder] = this.coders) {
      await coder.finish()
      this.coders.shift()
    }
  }

  /** Lets go of what is being decoded and coded; for a render that ends early. */
  async close(): Promise<void> {
    await this.blocks.return(undefined)
    for (const coder of this.coders) await coder.cancel()
  }

  private async write(data: Float32Array): Promise<void> {
    if (data.length === 0) return
    const at = this.frames
    this.frames += data.length / 2
    for (const coder of this.coders) await coder.add(data as Float32Array<ArrayBuffer>, at)
  }
}
