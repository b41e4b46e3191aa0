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

/** The recordings of an edit, each opened once, with the decoded frames that the output frame at hand needs. */
export class SourceSet {
  private readonly open = new Map<RecordingId, { source: Source; cursor: FrameCursor }>()
  private readonly frames = new Map<string, VideoSample | null>()
  /** What is being decoded just now, so that an error can be laid at its door. */
  reading: { fileName: string; atMicros: Micros } | null = null

  private constructor() {}

  /** Opens every recording that `edit` uses. Returns the first one that is missing or cannot be opened, if any. */
  static async openAll(edit: Edit, files: ReadonlyMap<RecordingId, Blob>): Promise<SourceSet | MissingSource> {
    const set = new SourceSet()
    for (const id of new Set(edit.highlight.passages.map((p) => p.recordingId))) {
      const { fileName, originMicros } = recordingOf(edit, id)
      const file = files.get(id)
      try {
        if (!file) throw new Error('no file')
        const source = await openSource(file, originMicros)
        set.open.set(id, { source, cursor: new FrameCursor(source) })
      } catch {
        await set.close()
        return { fileName }
      }
    }
    return set
  }

  sourceOf(id: RecordingId): Source {
    const entry = this.open.get(id)
    if (!entry) throw new RangeError(`recordings: ${id} is not open`)
    return entry.source
  }

  /** Decodes what a composition's feeds show; `frameOf` then gives them until the next call. */
  async load(feeds: readonly Feed[], fileNameOf: (id: RecordingId) => string): Promise<void> {
    this.frames.clear()
    for (const feed of feeds) {
      if (this.frames.has(keyOf(feed))) continue
      this.reading = { fileName: fileNameOf(feed.recordingId), atMicros: feed.micros }
      const entry = this.open.get(feed.recordingId)
      this.frames.set(keyOf(feed), entry ? await entry.cursor.frameAt(feed.micros) : null)
      this.reading = null
    }
  }

  frameOf = (feed: Feed): VideoSample | null => this.frames.get(keyOf(feed)) ?? null

  async close(): Promise<void> {
    this.frames.clear()
    for (const { source, cursor } of this.open.values()) {
      await cursor.close().catch(() => {})
      source.dispose()
    }
    this.open.clear()
  }
}

const keyOf = (feed: Feed) => `${feed.recordingId} ${feed.micros}`
