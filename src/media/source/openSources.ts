import { quietly } from '@/diagnostics/note'
import { openSource, type Source } from './openSource'

/** A recording as the workers need it: whose it is, its bytes, and where its clock starts. */
export interface SourceFile {
  id: string
  file: Blob
  originMicros: number
}

interface Kept {
  size: number
  source: Promise<Source>
  users: number
  closing: ReturnType<typeof setTimeout> | undefined
}

/** Kept open for this long after the last use. */
const IDLE_MS = 10_000

/** Recordings that are looked into again and again, each opened once: opening a long one reads its whole index. */
export class OpenSources {
  private readonly kept = new Map<string, Kept>()

  /** Runs `work` on an open recording. Rejects when it cannot be opened, or as `work` does. */
  async use<T>(file: SourceFile, work: (source: Source) => Promise<T>): Promise<T> {
    const kept = this.keptFor(file)
    kept.users++
    clearTimeout(kept.closing)
    try {
      return await work(await kept.source)
    } finally {
      kept.users--
      if (kept.users === 0)
        kept.closing = setTimeout(() => this.close(file.id, kept), this.kept.get(file.id) === kept ? IDLE_MS : 0)
    }
  }

  private keptFor({ id, file, originMicros }: SourceFile): Kept {
    const cached = this.kept.get(id)
    // Another file has been chosen in its place: whoever still uses the old one closes it.
    if (cached?.size === file.size) return cached
    const kept: Kept = { size: file.size, source: openSource(file, originMicros), users: 0, closing: undefined }
    kept.source.catch(() => this.close(id, kept))
    this.kept.set(id, kept)
    return kept
  }

  private close(id: string, kept: Kept): void {
    if (this.kept.get(id) === kept) this.kept.delete(id)
    kept.source.then((source) => source.dispose()).catch(quietly('closing a recording'))
  }
}
