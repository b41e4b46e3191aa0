import { EncodedPacket, EncodedVideoPacketSource, type VideoSample } from 'mediabunny'
import { mergedAvcConfig, readAvcConfig, writeAvcConfig, type AvcConfig } from '@/core/coded/avcConfig'
import { configWithIds, idsBeside, packetWithIds, type AvcIds } from '@/core/coded/avcIds'
import { bytesOf } from '../source/avcDescription'
import { OUTPUT_COLOURS, type FrameTime } from './pictureCanvas'

/** Frames that wait in the encoder at most. */
const MAX_WAITING = 4

/**
 * H.264 of our own between stretches that are taken over from a recording as they are coded, in one track: the sets
 * that our own is read with get numbers that the recording does not use.
 */
export class SplicedTrack {
  readonly source = new EncodedVideoPacketSource('avc')
  private readonly encoder: VideoEncoder
  /** What has been coded and written so far. */
  private written: Promise<void> = Promise.resolve()
  private error: unknown = null
  private sinceKey = Infinity
  /** Lets whoever waits for the encoder look again. */
  private wake = () => {}

  private constructor(
    config: VideoEncoderConfig,
    private readonly keyFrameEvery: number,
    private readonly ids: AvcIds,
    private readonly decoderConfig: VideoDecoderConfig,
  ) {
    this.encoder = new VideoEncoder({ output: (chunk) => this.take(chunk), error: (error) => this.fail(error) })
    this.encoder.ondequeue = () => this.wake()
    this.encoder.configure(config)
  }

  /**
   * `config`: of H.264, each unit behind its length; `keyFrameEvery`: frames from one to the next at most. Null when
   * the two cannot be told of in one track.
   */
  static async start(
    config: VideoEncoderConfig,
    keyFrameEvery: number,
    taken: AvcConfig,
  ): Promise<SplicedTrack | null> {
    const own = await ownConfig(config)
    const ids = own && idsBeside(own, taken)
    const merged = own && ids && mergedAvcConfig(configWithIds(own, ids), taken)
    if (!merged) return null
    return new SplicedTrack(config, keyFrameEvery, ids, {
      codec: config.codec,
      codedWidth: config.width,
      codedHeight: config.height,
      colorSpace: OUTPUT_COLOURS,
      description: writeAvcConfig(merged),
    })
  }

  /** Codes a frame. Resolves when the encoder can do with another; rejects when it broke down. */
  async add(sample: VideoSample): Promise<void> {
    await this.written
    while (this.error === null && this.encoder.encodeQueueSize >= MAX_WAITING)
      await new Promise<void>((resolve) => (this.wake = resolve))
    this.check()
    const frame = sample.toVideoFrame()
    const keyFrame = this.sinceKey >= this.keyFrameEvery
    this.sinceKey = keyFrame ? 1 : this.sinceKey + 1
    this.encoder.encode(frame, { keyFrame })
    frame.close()
  }

  /** Writes a packet of the recording behind what was given before. What is coded next begins with a key frame. */
  async copy(packet: EncodedPacket, { timestamp, duration }: FrameTime): Promise<void> {
    if (this.sinceKey < Infinity) await this.encoder.flush()
    this.check()
    this.sinceKey = Infinity
    this.write(new EncodedPacket(packet.data, packet.type, timestamp, duration))
    await this.written
  }

  /** Waits until everything is written. */
  async end(): Promise<void> {
    await this.encoder.flush()
    await this.written
    this.check()
    this.close()
  }

  close(): void {
    if (this.encoder.state !== 'closed') this.encoder.close()
  }

  private take(chunk: EncodedVideoChunk): void {
    const { data, type, timestamp, duration } = EncodedPacket.fromEncodedChunk(chunk)
    try {
      this.write(new EncodedPacket(packetWithIds(data, this.ids), type, timestamp, duration))
    } catch (error) {
      // Sets that were not told of at the start.
      this.fail(error)
    }
  }

  /** Whoever adds, copies or ends is told. */
  private fail(error: unknown): void {
    this.error ??= error
    this.wake()
  }

  private write(packet: EncodedPacket): void {
    this.written = this.written
      .then(() => this.source.add(packet, { decoderConfig: this.decoderConfig }))
      .catch((error) => this.fail(error))
  }

  private check(): void {
    if (this.error !== null) throw this.error
  }
}

/** How an encoder describes what it makes: told with its first frame. Null when it does not. */
async function ownConfig(config: VideoEncoderConfig): Promise<AvcConfig | null> {
  let description: AllowSharedBufferSource | undefined
  const encoder = new VideoEncoder({
    output: (_, meta) => (description ??= meta?.decoderConfig?.description),
    error: () => {},
  })
  try {
    encoder.configure(config)
    const frame = new VideoFrame(new Uint8Array((config.width * config.height * 3) / 2), {
      format: 'I420',
      codedWidth: config.width,
      codedHeight: config.height,
      timestamp: 0,
      colorSpace: OUTPUT_COLOURS,
    })
    encoder.encode(frame, { keyFrame: true })
    frame.close()
    await encoder.flush()
    return description ? readAvcConfig(bytesOf(description)) : null
  } catch {
    return null
  } finally {
    if (encoder.state !== 'closed') encoder.close()
  }
}
