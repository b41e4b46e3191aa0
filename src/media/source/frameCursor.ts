import { EncodedPacketSink, VideoSampleSink, type EncodedPacket, type VideoSample } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { FrameStream } from './frameStream'
import { KeyFrames } from './keyFrames'
import type { Source } from './openSource'

/**
 * A frame counts as started this much before its timestamp says so: containers round timestamps, some to the
 * millisecond, so the frame meant for an exact time can carry one that is up to 0.5 ms later.
 */
export const FRAME_TOLERANCE_MICROS = 1000

/**
 * A key frame so far ahead is worth starting again at: decoding what lies between would take longer than a fresh
 * decoder does.
 */
const WORTH_RESTARTING_MICROS = 500_000

/**
 * While a frame is on its way, one that was passed is offered after this long, and then every so often: drawing it
 * takes time from decoding.
 */
const FIRST_OFFER_MS = 30
const OFFER_EVERY_MS = 160

/** Whoever waits for a frame that is far away. */
export interface OnTheWay {
  /** A frame that was passed on the way, borrowed until this resolves. */
  offer: (frame: VideoSample) => Promise<void>
  /** Whether the frame is not wanted any more; the walk then ends where it is. */
  isOver: () => boolean
}

/**
 * Walks through a recording's frames. Asking for times in rising order decodes every frame once; asking backwards, or
 * beyond a key frame that lies well ahead, starts again from the last one before. Not for concurrent use: await one
 * call before the next.
 */
export class FrameCursor {
  private frames: FrameStream | null = null
  private current: VideoSample | null = null
  private next: VideoSample | null = null

  private readonly keyFrames: KeyFrames
  private seeks = 0

  /**
   * `isUnseen`: whether a frame on screen between two times will not be asked for; those need not be decoded.
   * `mostAhead`: see {@link FrameStream}; more for whoever asks seldom, and works meanwhile.
   */
  constructor(
    private readonly source: Source,
    private readonly isUnseen: (from: Micros, to: Micros) => boolean = () => false,
    private readonly mostAhead?: number,
  ) {
    this.keyFrames = new KeyFrames(source.video)
  }

  /**
   * The frame on screen at `t`; before the first frame the first, after the last the last, null if there is none at
   * all. Borrowed: the cursor closes it at the next call. A long walk offers what it passes to `onTheWay`, the key
   * frame it starts from at once; where that stops it, the frame it has come to is given.
   */
  async frameAt(t: Micros, onTheWay?: OnTheWay): Promise<VideoSample | null> {
    const wanted = t + FRAME_TOLERANCE_MICROS
    const anew = !this.current || !this.frames || (await this.isBetterReachedAnew(this.startOf(this.current), wanted))
    if (anew) await this.restart(wanted, onTheWay)
    let due = performance.now() + (anew ? OFFER_EVERY_MS : FIRST_OFFER_MS)
    while (this.next && this.startOf(this.next) <= wanted) {
      if (onTheWay && this.current && performance.now() > due) {
        await onTheWay.offer(this.current)
        due = performance.now() + OFFER_EVERY_MS
      }
      if (onTheWay?.isOver()) break
      this.current?.close()
      this.current = this.next
      this.next = null
      this.atStart = false
      this.next = await this.pull()
    }
    // Whoever has gone to one place goes to others; what is only opened need not pay for it.
    if (onTheWay && ++this.seeks > 1) void this.keyFrames.makeReady().catch(quietly('an index of key frames'))
    return this.current
  }

  /** Lets go of every frame and decoder. */
  async close(): Promise<void> {
    this.keyFrames.close()
    await this.leave()
  }

  private async leave(): Promise<void> {
    this.current?.close()
    this.next?.close()
    this.current = null
    this.next = null
    const frames = this.frames
    this.frames = null
    await frames?.close()
  }

  /** Whether `current` is the recording's first frame, which also stands for all time before it. */
  private atStart = false

  private async restart(wanted: Micros, onTheWay?: OnTheWay): Promise<void> {
    // A place that is gone to from another one; what is opened can wait, and a second decoder would cost it memory.
    const isSeek = this.current !== null && onTheWay !== undefined
    await this.leave()
    const from = Math.max(0, this.source.toContainer(wanted))
    const key = await new EncodedPacketSink(this.source.video).getKeyPacket(from, { metadataOnly: !isSeek })
    const glance = isSeek && key ? await this.glanceAt(key, onTheWay) : 'none'
    if (glance === 'left') return
    this.frames = new FrameStream(
      this.source.video,
      key?.timestamp ?? from,
      from,
      (start, end) => this.isPassedOver(this.source.toRecording(start), this.source.toRecording(end), wanted),
      this.mostAhead,
    )
    this.current = await this.pull()
    if (!this.current) {
      await this.leave()
      const last = await this.lastTimestamp()
      this.frames = new FrameStream(this.source.video, last, last)
      this.current = await this.pull()
    }
    this.atStart = this.current !== null && this.startOf(this.current) > wanted
    if (this.current && glance === 'none') await onTheWay?.offer(this.current)
    this.next = await this.pull()
  }

  /**
   * Offers the key frame before anything else is decoded. Whether it is done and goes on, or whoever waited has left
   * meanwhile and it is what was come to.
   */
  private async glanceAt(key: EncodedPacket, onTheWay: OnTheWay): Promise<'none' | 'goes-on' | 'left'> {
    const frame = await this.keyFrames.decode(key)
    if (!frame) return 'none'
    await onTheWay.offer(frame)
    if (onTheWay.isOver()) {
      this.current = frame
      return 'left'
    }
    frame.close()
    return 'goes-on'
  }

  private async isBetterReachedAnew(from: Micros, wanted: Micros): Promise<boolean> {
    if (wanted < from) return !this.atStart
    if (wanted - from <= WORTH_RESTARTING_MICROS) return false
    const key = await new EncodedPacketSink(this.source.video).getKeyPacket(this.source.toContainer(wanted), {
      metadataOnly: true,
    })
    return key !== null && this.source.toRecording(key.timestamp) - from > WORTH_RESTARTING_MICROS
  }

  /** Whether a frame lies before where the walk goes to, or between times that are asked for. */
  private isPassedOver(from: Micros, to: Micros, wanted: Micros): boolean {
    return to <= wanted || this.isUnseen(from - FRAME_TOLERANCE_MICROS, to - FRAME_TOLERANCE_MICROS)
  }

  private async lastTimestamp(): Promise<number> {
    const last = await new VideoSampleSink(this.source.video).getSample(Infinity)
    const timestamp = last?.timestamp ?? 0
    last?.close()
    return timestamp
  }

  private async pull(): Promise<VideoSample | null> {
    return (await this.frames?.next()) ?? null
  }

  private startOf(sample: VideoSample): Micros {
    return this.source.toRecording(sample.timestamp)
  }
}
