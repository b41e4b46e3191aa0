import type { VideoSample } from 'mediabunny'
import type { Feed } from '@/core/compose/composition'
import { usedImageFiles, usedRecordings, type Edit } from '@/core/model/edit'
import type { ImageFileId, RecordingId } from '@/core/model/ids'
import type { Micros } from '@/core/time/micros'
import { FrameCursor } from './frameCursor'
import { openSource, type Source } from './openSource'

/** A recording or picture that could not be opened. */
export interface MissingSource {
  fileName: string
}

/**
 * Cursors kept open over all recordings besides those of the picture at hand: each holds a decoder and a few frames. Two passages can be
 * on screen at once, and the one that comes next is made ready ahead of its cut.
 */
const SPARE_CURSORS = 3

interface Lane {
  cursor: FrameCursor
  recordingId: RecordingId
  lastUsed: number
  /** A cursor is asked for one frame at a time: whoever comes next waits for this. */
  busy: Promise<VideoSample | null>
}

/** The recordings of an edit, each opened once, with the decoded frames that the output frame at hand needs. */
export class SourceSet {
  private readonly open = new Map<RecordingId, Source>()
  private readonly images = new Map<ImageFileId, ImageBitmap>()
  private readonly lanes = new Map<string, Lane>()
  private readonly frames = new Map<string, VideoSample | null>()
  private uses = 0
  /** How many lanes the picture at hand is made from. */
  private lanesInUse = 1
  /** What is being decoded just now, so that an error can be laid at its door. */
  reading: { fileName: string; atMicros: Micros } | null = null

  private constructor() {}

  /**
   * Opens every recording and picture of an edit; those that only undo may need, where they are there. Returns the first one in use that is
   * missing or cannot be opened, if any.
   */
  static async openAll(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<SourceSet | MissingSource> {
    const set = new SourceSet()
    const used: { id: string }[] = [...usedRecordings(edit), ...usedImageFiles(edit)]
    const open = async ({ id, fileName }: { id: string; fileName: string }, how: (file: Blob) => Promise<void>) => {
      const file = files.get(id)
      const opened = file !== undefined && (await how(file).then(() => true, () => false))
      return opened || used.every((u) => u.id !== id) ? null : { fileName }
    }
    for (const recording of edit.recordings) {
      const missing = await open(recording, async (file) => void set.open.set(recording.id, await openSource(file, recording.originMicros)))
      if (missing) return set.close().then(() => missing)
    }
    for (const image of edit.imageFiles) {
      const missing = await open(image, async (file) => void set.images.set(image.id, await createImageBitmap(file)))
      if (missing) return set.close().then(() => missing)
    }
    return set
  }

  /** Decodes what a composition's feeds show; `frameOf` then gives them until the next call. */
  async load(feeds: readonly Feed[], fileNameOf: (id: RecordingId) => string): Promise<void> {
    this.frames.clear()
    this.lanesInUse = new Set(feeds.map((f) => f.lane)).size
    for (const feed of feeds) {
      if (this.frames.has(keyOf(feed))) continue
      this.reading = { fileName: fileNameOf(feed.recordingId), atMicros: feed.micros }
      const lane = await this.laneOf(feed)
      this.frames.set(keyOf(feed), lane ? await frameOn(lane, feed.micros) : null)
      this.reading = null
    }
  }

  /** Decodes a frame ahead of time, so that showing it later costs nothing; harmless when it fails. */
  async makeReady(feed: Feed): Promise<void> {
    const lane = await this.laneOf(feed)
    if (lane) await frameOn(lane, feed.micros).catch(() => null)
  }

  frameOf = (feed: Feed): VideoSample | null => this.frames.get(keyOf(feed)) ?? null

  imageOf = (id: ImageFileId): ImageBitmap | null => this.images.get(id) ?? null

  async close(): Promise<void> {
    this.frames.clear()
    for (const lane of this.lanes.values()) await closeLane(lane).catch(() => {})
    for (const source of this.open.values()) source.dispose()
    for (const image of this.images.values()) image.close()
    this.images.clear()
    this.lanes.clear()
    this.open.clear()
  }

  private async laneOf({ recordingId, lane }: Feed): Promise<Lane | null> {
    const source = this.open.get(recordingId)
    if (!source) return null
    let found = this.lanes.get(lane)
    if (found && found.recordingId !== recordingId) {
      this.lanes.delete(lane)
      await closeLane(found)
      found = undefined
    }
    if (!found) {
      if (this.lanes.size >= this.lanesInUse + SPARE_CURSORS) await this.closeOldest()
      found = { cursor: new FrameCursor(source), recordingId, lastUsed: 0, busy: Promise.resolve(null) }
      this.lanes.set(lane, found)
    }
    found.lastUsed = ++this.uses
    return found
  }

  private async closeOldest(): Promise<void> {
    const [oldest] = [...this.lanes].sort((a, b) => a[1].lastUsed - b[1].lastUsed)
    if (!oldest) return
    this.lanes.delete(oldest[0])
    await closeLane(oldest[1])
  }
}

function frameOn(lane: Lane, t: Micros): Promise<VideoSample | null> {
  lane.busy = lane.busy.catch(() => null).then(() => lane.cursor.frameAt(t))
  return lane.busy
}

async function closeLane({ busy, cursor }: Lane): Promise<void> {
  await busy.catch(() => null)
  await cursor.close()
}

const keyOf = ({ recordingId, micros, lane }: Feed) => `${lane} ${recordingId} ${micros}`
