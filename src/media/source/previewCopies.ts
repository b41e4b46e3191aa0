import { EncodedPacketSink, type EncodedPacket, type VideoSample } from 'mediabunny'
import type { Feed } from '@/core/compose/composition'
import type { RecordingId } from '@/core/model/ids'
import { pieceAt, PIECE_MICROS } from '@/core/time/pieces'
import { note, quietly } from '@/diagnostics/note'
import { FRAME_TOLERANCE_MICROS } from './frameCursor'
import { KeyFrames } from './keyFrames'
import { openSource, type Source } from './openSource'

/** A piece of a recording in the size for looking; its clock is 0 where the piece begins. */
export interface PreviewCopy {
  recordingId: RecordingId
  index: number
  file: Blob
}

/** A copy that can be read. */
export interface OpenCopy {
  key: string
  source: Source
}

/** So many are kept open, more than are ever read at one time: each is a file that has been read into. */
const MOST_OPEN = 12

/** So many keep a decoder ready for single frames: a place and its neighbours. */
const MOST_READY = 3

/** Preview copies of an edit's recordings, each opened when it is first shown. */
export class PreviewCopies {
  private readonly files = new Map<string, PreviewCopy>()
  private readonly opened = new Map<string, Promise<OpenCopy | null>>()
  private readonly ready = new Map<string, KeyFrames>()

  /** More that can be read from now on. */
  add(copies: readonly PreviewCopy[]): void {
    for (const copy of copies) this.files.set(keyOf(copy.recordingId, copy.index), copy)
  }

  has({ recordingId, micros }: Pick<Feed, 'recordingId' | 'micros'>): boolean {
    return this.files.has(keyOf(recordingId, pieceAt(micros)))
  }

  /** Copies of these moments are not read any more; says whether there were any. */
  forget(moments: readonly Pick<Feed, 'recordingId' | 'micros'>[]): boolean {
    const keys = moments.map(({ recordingId, micros }) => keyOf(recordingId, pieceAt(micros)))
    return keys.filter((key) => this.files.delete(key)).length > 0
  }

  /** The copy that shows a moment; null where there is none, or it cannot be read. */
  async at({ recordingId, micros }: Pick<Feed, 'recordingId' | 'micros'>): Promise<OpenCopy | null> {
    const copy = this.files.get(keyOf(recordingId, pieceAt(micros)))
    return copy ? this.open(copy) : null
  }

  /**
   * The frame on screen at a moment, by a decoder that stays ready: sooner than a walk begins. For the caller to
   * close; null where there is none. Not for concurrent use.
   */
  async frameAt(feed: Pick<Feed, 'recordingId' | 'micros'>): Promise<VideoSample | null> {
    const copy = await this.at(feed)
    if (!copy) return null
    const { video, toContainer } = copy.source
    const packets = new EncodedPacketSink(video)
    const wanted = toContainer(feed.micros + FRAME_TOLERANCE_MICROS)
    const key = await packets.getKeyPacket(Math.max(0, wanted))
    if (!key) return null
    const walk: [EncodedPacket, ...EncodedPacket[]] = [key]
    for (let next = await packets.getNextPacket(key); next && next.timestamp <= wanted;) {
      walk.push(next)
      next = await packets.getNextPacket(next)
    }
    return this.readyFor(copy).decode(...walk)
  }

  private readyFor({ key, source }: OpenCopy): KeyFrames {
    const ready = this.ready.get(key) ?? new KeyFrames(source.video)
    this.ready.delete(key)
    this.ready.set(key, ready)
    const [[oldest, first] = []] = this.ready
    if (this.ready.size > MOST_READY && oldest !== undefined && first) {
      this.ready.delete(oldest)
      first.close()
    }
    return ready
  }

  /** Lets go of all. Whoever reads one has closed its cursors before. */
  close(): void {
    for (const ready of this.ready.values()) ready.close()
    this.ready.clear()
    for (const opened of this.opened.values()) letGo(opened)
    this.opened.clear()
    this.files.clear()
  }

  private open(copy: PreviewCopy): Promise<OpenCopy | null> {
    const key = keyOf(copy.recordingId, copy.index)
    const known = this.opened.get(key)
    // What was used last stands last.
    this.opened.delete(key)
    const opened =
      known ??
      openSource(copy.file, -copy.index * PIECE_MICROS).then(
        (source) => ({ key, source }),
        (error: unknown) => {
          // The recording is read in its place.
          note('a preview copy', error)
          this.files.delete(key)
          return null
        },
      )
    this.opened.set(key, opened)
    const [[oldest, first] = []] = this.opened
    if (this.opened.size > MOST_OPEN && oldest !== undefined && first) {
      this.opened.delete(oldest)
      letGo(first)
    }
    return opened
  }
}

const keyOf = (recordingId: RecordingId, index: number) => `${recordingId} ${index}`

function letGo(opened: Promise<OpenCopy | null>): void {
  opened.then((copy) => copy?.source.dispose()).catch(quietly('closing a preview copy'))
}
