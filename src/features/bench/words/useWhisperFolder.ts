import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { readWhisperFolder, type FolderRead, type WhisperFolder } from '@/media/speech/whisperFolder'
import type { FolderSource } from '@/store/database'
import { filesIn, filesOfFolder, forgetWhisperFolder, keepWhisperFolder, whisperFolder } from '@/store/whisperFolder'
import { chooseFolder } from '@/shared/recordings/chosenFiles'

export type FolderProblem =
  Exclude<FolderRead, { ok: true }> | { ok: false; reason: 'gone' | 'no-room' | 'storage-failed' }

/**
 * The folder with a speech model that is kept, and how to choose another. `folder` is known once it has been read in
 * this tab.
 */
export function useWhisperFolder() {
  const kept = useLiveQuery(whisperFolder, [])
  const [folder, setFolder] = useState<WhisperFolder | null>(null)
  const [problem, setProblem] = useState<FolderProblem | null>(null)

  const take = async (name: string, files: ReadonlyMap<string, Blob>): Promise<WhisperFolder | null> => {
    const read = await readWhisperFolder(name, files)
    setProblem(read.ok ? null : read)
    setFolder(read.ok ? read.folder : null)
    return read.ok ? read.folder : null
  }
  const choose = async () => {
    const chosen = await chooseFolder()
    if (!chosen) return
    const read = await take(chosen.name, 'handle' in chosen ? await filesIn(chosen.handle) : chosen.files)
    if (!read) return
    const from: FolderSource =
      'handle' in chosen ? { kind: 'linked', handle: chosen.handle } : { kind: 'kept', files: read.files }
    const result = await keepWhisperFolder({ name: read.name, language: spokenIn(read.languages), from })
    if (!result.ok) setProblem(result)
  }
  /** The kept folder, read; null, with `problem` set, where it cannot be. Must be called from a person's own action. */
  const open = async (): Promise<WhisperFolder | null> => {
    if (!kept) return null
    const files = await filesOfFolder(kept)
    if (files) return take(kept.name, files)
    setProblem({ ok: false, reason: 'gone' })
    return null
  }
  const forget = async () => {
    await forgetWhisperFolder()
    setFolder(null)
    setProblem(null)
  }
  // A copy can be read unasked; a link may need the person's leave.
  const copy = kept?.from.kind === 'kept' ? kept : null
  useEffect(() => {
    if (copy?.from.kind === 'kept')
      void readWhisperFolder(copy.name, copy.from.files).then((read) => read.ok && setFolder(read.folder))
  }, [copy])
  return { kept, folder, problem, choose, open, forget }
}

/** The browser's own language where the model has it, else English, else the model's first. */
function spokenIn(languages: readonly string[]): string | null {
  const own = navigator.language.split('-')[0] ?? 'en'
  return [own, 'en'].find((l) => languages.includes(l)) ?? languages[0] ?? null
}
