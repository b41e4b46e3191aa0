import type { VideoSample } from 'mediabunny'
import { momentKey, type Feed } from '@/core/compose/composition'
import { usedFontFiles, usedImageFiles, usedRecordings, type Edit } from '@/core/model/edit'
import type { ImageFileId, RecordingId } from '@/core/model/ids'
import { pieceAt } from '@/core/time/pieces'
import type { Micros } from '@/core/time/micros'
import { nullOnError, quietly } from '@/diagnostics/note'
import { listOwnFont } from '../fonts/loadFonts'
import { FrameCursor, type OnTheWay } from './frameCursor'
import { openImage, type OpenImage } from './openImage'
import { openSource, type Source } from './openSource'
import { PreviewCopies } from './previewCopies'
import { WantedTimes } from './wantedTimes'

/** A recording, picture or font that could not be opened. */
export interface MissingSource {
  fileName: string
}

/**
 * Cursors kept open over all recordings besides those of the picture at hand: each holds a decoder and a few frames.
 * Two passages can be on screen at once, and the one that comes next is made ready ahead of its cut.
 */
const SPARE_CURSORS = 3

/**
 * A cursor that nothing on screen needs takes over a walk that begins so soon after where it stands: at a split, or
 * after a short stretch struck out.
 */
const TAKES_OVER_MICROS = 1_500_000

/** A walk that goes on within this of where another ends is left to that one. */
const GOES_ON_MICROS = 100_000

/** Whoever stands so close to a moment has its frame, or decodes but a few to come to it. */
const CLOSE_MICROS = 150_000

/** What frames are read from: a recording itself, or a copy of it for looking. */
export type ReadsFrom = 'recordings' | 'copies'

/** A moment of a recording as it is read: `reads` tells the file, and one lane reads one file at a time. */
interface Reading {
  lane: string
  reads: string
  source: Source
  micros: Micros
}

interface Lane {
  key: string
  cursor: FrameCursor
  reads: string
  /** The recording time that it was asked for last. */
  at: Micros
  lastUsed: number
  /** A cursor is asked for one frame at a time: whoever comes next waits for this. */
  busy: Promise<VideoSample | null>
}

/** The recordings of an edit, each opened once, with the decoded frames that the output frame at hand needs. */
export class SourceSet {
  private readonly open = new Map<RecordingId, Source>()
  private readonly images = new Map<ImageFileId, OpenImage>()
  private readonly lanes = new Map<string, Lane>()
  private readonly frames = new Map<string, VideoSample | null>()
  /** Moments whose frames come from copies. */
  private readonly small = new Set<string>()
  /** Frames that no cursor holds. */
  private readonly glanced: VideoSample[] = []
  /** Copies in the size for looking, as far as there are any; renders know none. */
  readonly copies = new PreviewCopies()
  private readonly expected = new Map<string, WantedTimes>()
  private uses = 0
  /** The lanes that the picture at hand is made from. */
  private lanesInUse: ReadonlySet<string> = new Set()
  /** What is being decoded just now, so that an error can be laid at its door. */
  reading: { fileName: string; atMicros: Micros } | null = null

  private constructor() {}

  /**
   * Opens every recording, picture and font of an edit; those that only undo may need, where they are there. Returns
   * the first one in use that is missing or cannot be opened, if any.
   */
  static async openAll(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<SourceSet | MissingSource> {
    const set = new SourceSet()
    const used: { id: string }[] = [...usedRecordings(edit), ...usedImageFiles(edit), ...usedFontFiles(edit)]
    const open = async ({ id, fileName }: { id: string; fileName: string }, how: (file: Blob) => Promise<void>) => {
      const file = files.get(id)
      const opened =
        file !== undefined &&
        (await how(file).then(
          () => true,
          () => false,
        ))
      return opened || used.every((u) => u.id !== id) ? null : { fileName }
    }
    for (const recording of edit.recordings) {
      const missing = await open(
        recording,
        async (file) => void set.open.set(recording.id, await openSource(file, recording.originMicros)),
      )
      if (missing) return set.close().then(() => missing)
    }
    for (const image of edit.imageFiles) {
      const missing = await open(image, async (file) => void set.images.set(image.id, await openImage(file)))
      if (missing) return set.close().then(() => missing)
    }
    for (const font of edit.fontFiles) {
      const missing = await open(font, async (file) => listOwnFont(font.name, file))
      if (missing) return set.close().then(() => missing)
    }
    return set
  }

  /** The recordings that are open, by id; they stay the set's. */
  get recordings(): ReadonlyMap<RecordingId, Source> {
    return this.open
  }

  /**
   * Tells what will be loaded, in its order, well ahead of its turn: frames between need not be decoded. Whoever
   * loads what was not told of gets it all the same once everything told of has been loaded.
   */
  expect(feeds: readonly Feed[]): void {
    for (const feed of feeds) {
      const key = walkOf(feed.lane, feed.recordingId)
      const times = this.expected.get(key) ?? new WantedTimes()
      this.expected.set(key, times)
      times.add(feed.micros)
    }
  }

  /**
   * Decodes what a composition's feeds show; `frameOf` then gives them until the next call. Where that takes long and
   * there is but one feed, `onTheWay.near` is called when `frameOf` gives a frame near the one asked for. From copies,
   * what there is no copy of comes from the recording.
   */
  async load(
    feeds: readonly Feed[],
    fileNameOf: (id: RecordingId) => string,
    onTheWay?: { near: () => Promise<void>; isOver: () => boolean },
    from: ReadsFrom = 'recordings',
  ): Promise<void> {
    this.forget()
    const readings =
      from === 'copies'
        ? await Promise.all(feeds.map((feed) => this.smallReading(feed)))
        : feeds.map((feed) => this.ownReading(feed))
    this.lanesInUse = new Set(readings.flatMap((r) => r?.lane ?? []))
    for (const [n, feed] of feeds.entries()) {
      if (this.frames.has(momentKey(feed))) continue
      this.reading = { fileName: fileNameOf(feed.recordingId), atMicros: feed.micros }
      const reading = readings[n]
      const lane = reading ? await this.laneOf(reading) : null
      if (reading && reading.reads !== feed.recordingId) this.small.add(momentKey(feed))
      const near =
        onTheWay && feeds.length === 1
          ? {
              isOver: onTheWay.isOver,
              offer: (frame: VideoSample) => (this.frames.set(momentKey(feed), frame), onTheWay.near()),
            }
          : undefined
      this.frames.set(momentKey(feed), lane ? await frameOn(lane, feed.micros, near) : null)
      this.reading = null
    }
  }

  /**
   * As {@link load}, from copies alone, and as soon as can be: for a place that is gone to. Says whether there are
   * copies of all of it.
   */
  async glance(feeds: readonly Feed[]): Promise<boolean> {
    this.forget()
    if (!feeds.every((feed) => this.copies.has(feed))) return false
    for (const feed of feeds) {
      if (this.frames.has(momentKey(feed))) continue
      const frame = await this.copies.frameAt(feed)
      if (!frame) return false
      this.glanced.push(frame)
      this.frames.set(momentKey(feed), frame)
      this.small.add(momentKey(feed))
    }
    return true
  }

  private forget(): void {
    this.frames.clear()
    this.small.clear()
    for (const frame of this.glanced.splice(0)) frame.close()
  }

  /** Decodes a frame before it is due, so that showing it then costs nothing; harmless when it fails. */
  async makeReady(feed: Feed, dueInMicros: Micros, from: ReadsFrom = 'recordings'): Promise<void> {
    const reading = from === 'copies' ? await this.smallReading(feed) : this.ownReading(feed)
    if (!reading) return
    const goesOn = ([key, { reads, at }]: [string, Lane]) =>
      this.lanesInUse.has(key) && reads === reading.reads && Math.abs(feed.micros - (at + dueInMicros)) < GOES_ON_MICROS
    if ([...this.lanes].some(goesOn)) return
    const lane = await this.laneOf(reading)
    if (lane) await frameOn(lane, feed.micros).catch(nullOnError('closing a recording'))
  }

  frameOf = (feed: Feed): VideoSample | null => this.frames.get(momentKey(feed)) ?? null

  /** Whether `frameOf` gives a frame of a copy, in the size for looking. */
  isFromCopy = (feed: Feed): boolean => this.small.has(momentKey(feed))

  /** Whether the recordings themselves stand at these moments, or so close before them that they are there at once. */
  isClose(feeds: readonly Feed[]): boolean {
    return feeds.every(({ lane: key, recordingId, micros }) => {
      const lane = this.lanes.get(key)
      return lane?.reads === recordingId && micros >= lane.at && micros - lane.at <= CLOSE_MICROS
    })
  }

  imageOf = (id: ImageFileId, micros: Micros): ImageBitmap | null => this.images.get(id)?.at(micros) ?? null

  async close(): Promise<void> {
    this.forget()
    for (const lane of this.lanes.values()) await closeLane(lane).catch(quietly('closing a recording'))
    for (const source of this.open.values()) source.dispose()
    for (const image of this.images.values()) image.close()
    this.images.clear()
    this.copies.close()
    this.lanes.clear()
    this.open.clear()
  }

  private ownReading({ recordingId, micros, lane }: Feed): Reading | null {
    const source = this.open.get(recordingId)
    return source ? { lane, reads: recordingId, source, micros } : null
  }

  /** From a copy where there is one. */
  private async smallReading(feed: Feed): Promise<Reading | null> {
    const copy = await this.copies.at(feed)
    if (!copy) return this.ownReading(feed)
    const { lane, micros } = feed
    // Pieces take turns between two lanes, so that the next can be made ready while this one plays.
    return { lane: `${lane} copy ${pieceAt(micros) % 2}`, reads: copy.key, source: copy.source, micros }
  }

  private async laneOf(reading: Reading): Promise<Lane> {
    const { lane: key, reads, source, micros } = reading
    let lane = this.lanes.get(key)
    if (!lane || !isNear(lane, reading)) lane = this.takeOver(reading) ?? lane
    if (lane && lane.reads !== reads) {
      this.lanes.delete(key)
      await closeLane(lane)
      lane = undefined
    }
    if (!lane) {
      if (this.lanes.size >= Math.max(1, this.lanesInUse.size) + SPARE_CURSORS) await this.closeOldest()
      const made: Lane = {
        key,
        cursor: new FrameCursor(
          source,
          (from, to) => this.expected.get(walkOf(made.key, reads))?.isUnseen(from, to) ?? false,
        ),
        reads,
        at: micros,
        lastUsed: 0,
        busy: Promise.resolve(null),
      }
      lane = made
      this.lanes.set(key, lane)
    }
    lane.at = micros
    this.expected.get(walkOf(key, reads))?.forgetBefore(micros)
    lane.lastUsed = ++this.uses
    return lane
  }

  /** Exchanges a reading's lane for an idle one that stands just before it, if there is one. */
  private takeOver(reading: Reading): Lane | undefined {
    const idle = [...this.lanes].find(([key, lane]) => !this.lanesInUse.has(key) && isNear(lane, reading))
    if (!idle) return undefined
    const [key, lane] = idle
    const own = this.lanes.get(reading.lane)
    if (own) this.place(key, own)
    else this.lanes.delete(key)
    this.place(reading.lane, lane)
    return lane
  }

  private place(key: string, lane: Lane): void {
    lane.key = key
    this.lanes.set(key, lane)
  }

  private async closeOldest(): Promise<void> {
    const [oldest] = [...this.lanes].sort((a, b) => a[1].lastUsed - b[1].lastUsed)
    if (!oldest) return
    this.lanes.delete(oldest[0])
    await closeLane(oldest[1])
  }
}

const walkOf = (lane: string, reads: string) => `${lane} ${reads}`

const isNear = (lane: Lane, { reads, micros }: Reading) =>
  lane.reads === reads && micros >= lane.at && micros - lane.at <= TAKES_OVER_MICROS

function frameOn(lane: Lane, t: Micros, onTheWay?: OnTheWay): Promise<VideoSample | null> {
  lane.busy = lane.busy.catch(() => null).then(() => lane.cursor.frameAt(t, onTheWay))
  return lane.busy
}

async function closeLane({ busy, cursor }: Lane): Promise<void> {
  await busy.catch(() => null)
  await cursor.close()
}
