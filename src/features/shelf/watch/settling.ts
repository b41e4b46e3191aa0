/** A file is whole when it has stayed as it is for so long: recorders write several times a second. */
export const SETTLED_AFTER_MS = 10_000

/** A file in a folder, as it is now. `modified`: ms since 1970. */
export interface FileNow {
  name: string
  sizeBytes: number
  modified: number
}

/** A file as it was first seen in its present state. `sinceMs`: when that was. */
export interface SettlingFile extends FileNow {
  sinceMs: number
}

export interface Settling {
  /** To be handed in again at the next look. */
  seen: Map<string, SettlingFile>
  /** Files that have stopped growing. */
  settled: string[]
  /** Files that are still being written, or were not watched for long enough. */
  growing: string[]
}

/**
 * Which files of a folder have stopped growing, going by what was seen at earlier looks. An empty file is one that is
 * about to be written. `nowMs`: of a clock that never goes back.
 */
export function settle(before: ReadonlyMap<string, SettlingFile>, files: readonly FileNow[], nowMs: number): Settling {
  const seen = new Map<string, SettlingFile>()
  const settled: string[] = []
  const growing: string[] = []
  for (const file of files) {
    const earlier = before.get(file.name)
    const same = earlier?.sizeBytes === file.sizeBytes && earlier.modified === file.modified
    const now = { ...file, sinceMs: same ? earlier.sinceMs : nowMs }
    seen.set(file.name, now)
    if (file.sizeBytes > 0 && nowMs - now.sinceMs >= SETTLED_AFTER_MS) settled.push(file.name)
    else growing.push(file.name)
  }
  return { seen, settled, growing }
}
