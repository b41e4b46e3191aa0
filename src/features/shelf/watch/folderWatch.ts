import { createStore } from 'zustand/vanilla'
import type { RecordingId } from '@/core/model/ids'
import { highlightsOnShelf } from '@/store/highlights'
import {
  noteWatched,
  readWatchSettings,
  watchedFiles,
  watchedFolder,
  watchFolder,
  type WatchedFile,
} from '@/store/watched'
import { newId } from '@/core/model/ids'
import { nullOnError } from '@/diagnostics/note'
import { renderAllShapes } from '@/shared/rendering/renderAllShapes'
import { keepDoing } from '@/shared/oneTab'
import { tell } from '@/shared/rendering/notify'
import type { ChosenFile } from '@/shared/recordings/chosenFiles'
import { takeIn } from '../takeIn'
import { withTextsBeside } from '../textsBeside'
import { settle, type SettlingFile } from './settling'
import { wording } from '../wording'

/** One tab watches at a time: whoever holds this lock. */
const LOCK = 'brimble-watch'

/** The folder is looked into so often. */
const LOOKS_EVERY_MS = 2000

const RECORDINGS = /\.(mp4|mov|m4v|mkv|webm|ts|mts|m2ts)$/i
const CAPTIONS = /\.(vtt|srt)$/i

/** How the watching goes, in the tab that does it; *elsewhere* in the others. */
export type WatchState =
  | { kind: 'elsewhere' }
  | { kind: 'off' }
  | { kind: 'needs-leave'; folder: FileSystemDirectoryHandle }
  | { kind: 'gone'; folder: FileSystemDirectoryHandle }
  | { kind: 'on'; growing: string[]; taking: string | null }

export const watchState = createStore<WatchState>(() => ({ kind: 'elsewhere' }))

let seen = new Map<string, SettlingFile>()

/** Watches the recorder's folder while the application is open in some tab. Does nothing when it is already started. */
export function startWatching(): void {
  keepDoing({
    lock: LOCK,
    round: async () => {
      await look()
      await new Promise((resolve) => setTimeout(resolve, LOOKS_EVERY_MS))
    },
  })
}

/**
 * Lets the person choose the folder; what lies there already is left alone until it is asked for. False when none was
 * chosen.
 */
export async function chooseWatchedFolder(): Promise<boolean> {
  try {
    const handle = await window.showDirectoryPicker?.({ mode: 'read' })
    if (!handle) return false
    const there = [...(await recordingsIn(handle)).values()].filter(({ file }) => RECORDINGS.test(file.name))
    await watchFolder(
      handle,
      there.map(({ file }) => asNoted(file, 'was-there')),
    )
    return true
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return false
    throw error
  }
}

function asNoted(
  file: File,
  outcome: WatchedFile['outcome'],
  recordingId = newId<RecordingId>(),
  problem: string | null = null,
): Omit<WatchedFile, 'at'> {
  return { name: file.name, sizeBytes: file.size, modified: file.lastModified, outcome, recordingId, problem }
}

async function recordingsIn(folder: FileSystemDirectoryHandle): Promise<Map<string, ChosenFile>> {
  const files = new Map<string, ChosenFile>()
  for await (const entry of folder.values()) {
    if (entry.kind !== 'file' || !(RECORDINGS.test(entry.name) || CAPTIONS.test(entry.name))) continue
    // A file can go between being listed and being opened.
    const file = await entry.getFile().catch(nullOnError('the watched folder'))
    if (file) files.set(entry.name, { file, handle: entry })
  }
  return files
}

async function look(): Promise<void> {
  const folder = await watchedFolder()
  if (!folder) return watchState.setState({ kind: 'off' }, true)
  if ((await folder.queryPermission({ mode: 'read' })) !== 'granted')
    return watchState.setState({ kind: 'needs-leave', folder }, true)
  const files = await recordingsIn(folder).catch(nullOnError('the watched folder'))
  if (!files) return watchState.setState({ kind: 'gone', folder }, true)
  const noted = new Map((await watchedFiles()).map((f) => [f.name, f]))
  const wanted = [...files].filter(([name, { file }]) => RECORDINGS.test(name) && isNews(file, noted.get(name)))
  const now = settle(
    seen,
    wanted.map(([name, { file }]) => ({ name, sizeBytes: file.size, modified: file.lastModified })),
    performance.now(),
  )
  seen = now.seen
  watchState.setState({ kind: 'on', growing: now.growing, taking: null }, true)
  for (const name of now.settled) {
    const chosen = files.get(name)
    // Each is taken in on its own: it may be the last moment that anybody still wants it.
    if (!chosen || !(await watchedFolder())) continue
    watchState.setState({ kind: 'on', growing: now.growing, taking: name }, true)
    await take(chosen, [...files.values()], noted.get(name))
  }
  if (now.settled.length > 0) watchState.setState({ kind: 'on', growing: now.growing, taking: null }, true)
}

/**
 * Whether a file is still to be seen to: one that was not seen, was cut short, or could not be read as it was then.
 * One that was taken in never is again, whatever becomes of it.
 */
function isNews(file: File, known: WatchedFile | undefined): boolean {
  if (!known || known.outcome === 'taking') return true
  return known.outcome === 'refused' && (known.sizeBytes !== file.size || known.modified !== file.lastModified)
}

async function take(chosen: ChosenFile, all: readonly ChosenFile[], known: WatchedFile | undefined): Promise<void> {
  const { file } = chosen
  const id = known?.recordingId ?? newId<RecordingId>()
  await noteWatched([asNoted(file, 'taking', id)])
  // Cut short between its highlight and the note of it: the highlight is there.
  const made = (await highlightsOnShelf()).some((h) => h.passages.some((p) => p.recordingId === id))
  if (made) return noteWatched([asNoted(file, 'laid-out', id)])
  const [found] = withTextsBeside([chosen, ...all.filter((c) => CAPTIONS.test(c.file.name))]).recordings
  const taken = await takeIn(chosen, found?.text ?? null, { id })
  if (!taken.ok) {
    await noteWatched([asNoted(file, 'refused', id, taken.problem)])
    return tell(wording.aRecordingCouldNotBe, taken.problem, `watch ${file.name}`)
  }
  const { laidOut } = taken
  if (!laidOut) {
    await noteWatched([asNoted(file, 'added', id)])
    return tell(wording.aRecordingWantsToBe, wording.isOnTheShelfIt(taken.recording.name), `watch ${file.name}`)
  }
  const render = (await readWatchSettings()).render
  await noteWatched([asNoted(file, render ? 'rendering' : 'laid-out', id)])
  if (render) await renderAllShapes(laidOut.highlight.id, null)
}
