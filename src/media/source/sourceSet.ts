import type { VideoSample } from 'mediabunny'
import type { Feed } from '@/core/compose/composition'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import type { Micros } from '@/core/time/micros'
import { FrameCursor } from './frameCursor'
import { openSource, type Source } from './openSource'

/** A recording that could not be opened. */
export interface MissingSource {
  fileName: string
}

/**
 * Cursors kept open over all recordings: each holds a decoder and a few frames. Two passages can be on screen at once, and the one
 * that comes next is made ready ahead of its cut.
 */
const MOST_CURSORS = 4

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
  private readonly lanes = new Map<string, Lane>()
  private readonly frames = new Map<string, VideoSample | null>()
  private uses = 0
  /** What is being decoded just now, so that an error can be laid at its door. */
  reading: { fileName: string; atMicros: Micros } | null = null

  private constructor() {}

  /** Opens every recording that `edit` uses. Returns the first one that is missing or cannot be opened, if any. */
  static async openAll(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<SourceSet | MissingSource> {
    const set = new SourceSet()
    for (const id of new Set(edit.highlight.passages.map((p) => p.recordingId))) {
      const { fileName, originMicros } = recordingOf(edit, id)
      const file = files.get(id)
      try {
        if (!file) throw new Error('no file')
        set.open.set(id, await openSource(file, originMicros))
      } catch {
        await set.close()
        return { fileName }
      }
    }
    return set
  }

  /** Decodes what a composition's feeds show; `frameOf` then gives them until the next call. */
  async load(feeds: readonly Feed[], fileNameOf: (id: RecordingId) => string): Promise<void> {
    this.frames.clear()
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

  async close(): Promise<void> {
    this.frames.clear()
    for (const lane of this.lanes.values()) await closeLane(lane).catch(() => {})
    for (const source of this.open.values()) source.dispose()
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
      if (this.lanes.size >= MOST_CURSORS) await this.closeOldest()
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
