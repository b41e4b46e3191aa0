import {
  EncodedPacketSink,
  VideoSampleSink,
  type EncodedPacket,
  type InputVideoTrack,
  type VideoSample,
} from 'mediabunny'
import { asRecorded } from './asRecorded'
import { disposableIn, withoutUnseen, type IsUnseen } from './leaveOut'
import { ReadAhead } from './readAhead'

/** Packets given to the decoder and not taken from it as frames: enough to keep it busy through its reordering. */
const MAX_AHEAD = 6

/**
 * Frames from a time on, in the order of their presentation, decoded a little ahead of whoever takes them. Not for
 * concurrent use: await one call before the next.
 */
export class FrameStream {
  private readonly samples: AsyncGenerator<VideoSample, void, unknown>
  private readonly ahead: ReadAhead

  /**
   * From the frame on screen at `startSeconds` on; up to `wantedSeconds` as fast as they come, since nobody looks at
   * those. Frames that `isUnseen` may be left out. `mostAhead`: packets given to the decoder and not taken from it as
   * frames. Container time.
   */
  constructor(
    private readonly track: InputVideoTrack,
    startSeconds: number,
    private readonly wantedSeconds: number,
    private readonly isUnseen: IsUnseen = () => false,
    mostAhead = MAX_AHEAD,
  ) {
    this.ahead = new ReadAhead(mostAhead)
    const packets = new EncodedPacketSink(track)
    const all = packets.packets.bind(packets)
    packets.packets = (...range) => this.heldBack(all(...range))
    // The sink makes its own reader of packets; should a later version no longer ask here, frames are the same and
    // only memory grows.
    this.samples = Object.assign(new VideoSampleSink(track), { _createPacketSink: () => packets }).samples(startSeconds)
  }

  /** The next frame, for the caller to close; null after the last. Rejects when the file cannot be read or decoded. */
  async next(): Promise<VideoSample | null> {
    const result = await this.ahead.take(
      () => this.samples.next(),
      ({ value }) => !value || value.timestamp >= this.wantedSeconds,
    )
    return result.done ? null : asRecorded(result.value, this.track)
  }

  async close(): Promise<void> {
    this.ahead.close()
    await this.samples.return()
  }

  private async *heldBack(
    packets: AsyncGenerator<EncodedPacket, void, unknown>,
  ): AsyncGenerator<EncodedPacket, void, unknown> {
    for await (const packet of withoutUnseen(packets, await disposableIn(this.track), this.isUnseen)) {
      if (packet.timestamp >= this.wantedSeconds) await this.ahead.turn()
      yield packet
    }
  }
}
