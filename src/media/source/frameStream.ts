import { EncodedPacketSink, VideoSampleSink, type EncodedPacket, type InputVideoTrack, type VideoSample } from 'mediabunny'

/** Packets given to the decoder and not taken from it as frames: enough to keep it busy through its reordering. */
const MOST_AHEAD = 6

/** A decoder that gives nothing back yet gets a further packet this often: some hold back more than others. */
const IMPATIENCE_MS = 5

/**
 * Frames from a time on, in the order of their presentation, decoded a little ahead of whoever takes them. On its own the library decodes
 * forty ahead, which is 125 MB of 1080p for every place where playback rests; so the packets that it reads are held back here. Not for
 * concurrent use: await one call before the next.
 */
export class FrameStream {
  private readonly samples: AsyncGenerator<VideoSample, void, unknown>
  private given = 0
  private taken = 0
  private waiting = false
  private closed = false
  private wake: () => void = () => {}

  /** From the frame on screen at `startSeconds`, in container time. */
  constructor(track: InputVideoTrack, startSeconds: number) {
    const packets = new EncodedPacketSink(track)
    const all = packets.packets.bind(packets)
    packets.packets = (...range) => this.heldBack(all(...range), startSeconds)
    // The sink makes its own reader of packets; should a later version no longer ask here, frames are the same and only memory grows.
    this.samples = Object.assign(new VideoSampleSink(track), { _createPacketSink: () => packets }).samples(startSeconds)
  }

  /** The next frame, for the caller to close; null after the last. Rejects when the file cannot be read or decoded. */
  async next(): Promise<VideoSample | null> {
    this.waiting = true
    this.wake()
    try {
      const result = await this.samples.next()
      this.taken++
      return result.done ? null : result.value
    } finally {
      this.waiting = false
      this.wake()
    }
  }

  async close(): Promise<void> {
    this.closed = true
    this.wake()
    await this.samples.return()
  }

  private async *heldBack(packets: AsyncGenerator<EncodedPacket, void, unknown>, startSeconds: number): AsyncGenerator<EncodedPacket, void, unknown> {
    for await (const packet of packets) {
      // What comes before the start is decoded and dropped at once.
      if (packet.timestamp >= startSeconds) {
        this.given++
        if (this.given - this.taken > MOST_AHEAD) await this.turn()
      }
      yield packet
    }
  }

  /** Until there is room, or nothing comes although somebody waits. */
  private async turn(): Promise<void> {
    while (!this.closed && this.given - this.taken > MOST_AHEAD) {
      const woken = new Promise<boolean>((resolve) => (this.wake = () => resolve(false)))
      const impatient = this.waiting && new Promise<boolean>((resolve) => setTimeout(() => resolve(this.waiting), IMPATIENCE_MS))
      if (await (impatient ? Promise.race([woken, impatient]) : woken)) return
    }
  }
}
