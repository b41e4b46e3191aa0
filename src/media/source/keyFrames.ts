import { VideoSample, type EncodedPacket, type InputVideoTrack } from 'mediabunny'
import { nullOnError } from '@/diagnostics/note'
import { asRecorded } from './asRecorded'

/**
 * Decodes key frames by themselves, and short walks from them, with a decoder that stays ready. One that is made anew
 * waits for the page's own thread, and gives its first frame only when several more are on their way; this one needs a
 * fifth of that time (docs/performance.md). Not for concurrent use.
 */
export class KeyFrames {
  private decoder: VideoDecoder | null = null
  private decoded: VideoFrame | null = null

  constructor(private readonly track: InputVideoTrack) {}

  /** Makes the decoder, so that the first key frame need not wait for it. */
  async makeReady(): Promise<void> {
    if (this.decoder?.state === 'configured') return
    const config = await this.track.getDecoderConfig()
    if (!config) return
    this.close()
    const decoder = new VideoDecoder({
      output: (frame) => {
        this.decoded?.close()
        this.decoded = frame
      },
      // What is wrong with the file is told by whoever decodes on from here.
      error: () => {},
    })
    this.decoder = decoder
    decoder.configure({ ...config, optimizeForLatency: true })
  }

  /**
   * The frame of a key packet, for the caller to close; null where it cannot be decoded. With packets that follow it
   * in a track whose frames are coded in their order, the frame of the last.
   */
  async decode(...packets: [EncodedPacket, ...EncodedPacket[]]): Promise<VideoSample | null> {
    try {
      await this.makeReady()
      for (const packet of packets) this.decoder?.decode(packet.toEncodedVideoChunk())
      await this.decoder?.flush()
    } catch (error) {
      return nullOnError('decoding a key frame')(error)
    }
    const [frame, rotation, flip] = [this.decoded, await this.track.getRotation(), await this.track.getFlip()]
    this.decoded = null
    const { timestamp } = packets.at(-1) ?? packets[0]
    return frame && asRecorded(new VideoSample(frame, { rotation, flip, timestamp }), this.track)
  }

  close(): void {
    this.decoded?.close()
    this.decoded = null
    if (this.decoder && this.decoder.state !== 'closed') this.decoder.close()
    this.decoder = null
  }
}
