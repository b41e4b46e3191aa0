import { z } from 'zod'
import type { RecordingId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { chosenFolder, keepFolder } from './folders'

/**
 * What became of a file in the watched folder. *was-there*: it lay there when the folder was chosen. *taking*: being
 * taken in, or cut short while it was.
 */
export type WatchOutcome = 'was-there' | 'taking' | 'added' | 'laid-out' | 'rendering' | 'refused'

/** A file of the watched folder that has been seen to. Size and time are those it then had. */
export interface WatchedFile {
  name: string
  sizeBytes: number
  modified: number
  outcome: WatchOutcome
  /**
   * The recording it became; chosen before it is taken in, so that what is cut short is the same one when it is taken
   * up again.
   */
  recordingId: RecordingId
  /** What was wrong with it, in words. */
  problem: string | null
  at: string
}

/** The recorder's output folder. */
const FOLDER = 'recorder'

const watchSettings = z.object({
  /** Whether the chosen folder is watched. One that is not any more stays known, with what was taken in from it. */
  on: z.boolean().default(true),
  /** Whether what is laid out by itself is rendered too. */
  render: z.boolean().default(false),
})
export type WatchSettings = z.infer<typeof watchSettings>

const KEY = 'watch'

/** The folder that is watched; null while none is. */
export async function watchedFolder(): Promise<FileSystemDirectoryHandle | null> {
  return (await readWatchSettings()).on ? chosenFolder(FOLDER) : null
}

/**
 * Watches a folder from now on. `there`: what lies in it; what of that is not known yet is left alone. Of another
 * folder than before, all that was known is forgotten.
 */
export async function watchFolder(
  handle: FileSystemDirectoryHandle,
  there: readonly Omit<WatchedFile, 'at'>[],
): Promise<void> {
  const before = await chosenFolder(FOLDER)
  if (!before || !(await before.isSameEntry(handle))) await database().watched.clear()
  const names = new Set((await watchedFiles()).map((f) => f.name))
  await noteWatched(there.filter((f) => !names.has(f.name)))
  await keepFolder(FOLDER, handle)
  await changeWatchSettings({ on: true })
}

/** Watches it no more. What was taken in stays, and is known should the folder be chosen again. */
export const watchNoMore = () => changeWatchSettings({ on: false })

export async function readWatchSettings(): Promise<WatchSettings> {
  const kept = watchSettings.safeParse((await database().settings.get(KEY))?.value ?? {})
  return kept.success ? kept.data : watchSettings.parse({})
}

export async function changeWatchSettings(change: Partial<WatchSettings>): Promise<void> {
  await database().settings.put({ key: KEY, value: { ...(await readWatchSettings()), ...change } })
}

/** Every file that has been seen to, the latest first. */
export async function watchedFiles(): Promise<WatchedFile[]> {
  return (await database().watched.toArray()).sort((a, b) => b.at.localeCompare(a.at))
}

export async function noteWatched(files: readonly Omit<WatchedFile, 'at'>[]): Promise<void> {
  await database().watched.bulkPut(files.map((f) => ({ ...f, at: nowStamp() })))
}

/** Has these looked at as if they had just appeared. */
export async function forgetWatched(names: readonly string[]): Promise<void> {
  await database().watched.bulkDelete([...names])
}
