import { useCallback, useEffect, useState } from 'react'
import type { HighlightId, RecordingId } from '@/core/model/ids'
import type { Edit } from '@/core/model/edit'
import type { Recording } from '@/core/model/recording'
import { Player } from '@/media/playback/player'
import { EditSession } from '@/store/editSession'
import { loadEdit } from '@/store/highlights'
import { recordingFile } from '@/store/recordings'

export interface Bench {
  session: EditSession
  player: Player
  files: ReadonlyMap<RecordingId, Blob>
}

export type BenchState =
  | { kind: 'loading' }
  | { kind: 'not-found' }
  | { kind: 'unreadable-record'; newer: boolean }
  | { kind: 'source-missing'; recording: Recording; needsPermission: boolean }
  | { kind: 'source-unreadable'; fileName: string }
  | { kind: 'ready'; bench: Bench }

/** Opens a highlight for work: its edit with history, its recordings' files, a player. Closes and saves when it is left. */
export function useBench(id: string): { state: BenchState; reopen: () => void } {
  const [state, setState] = useState<BenchState>({ kind: 'loading' })
  const [attempt, setAttempt] = useState(0)
  const reopen = useCallback(() => setAttempt((n) => n + 1), [])

  useEffect(() => {
    let live = true
    let opened: Bench | null = null
    setState({ kind: 'loading' })
    void openBench(id as HighlightId).then((result) => {
      if (result.kind === 'ready') opened = result.bench
      if (live) setState(result)
      else closeBench(opened)
    })
    return () => {
      live = false
      closeBench(opened)
    }
  }, [id, attempt])

  useEffect(() => {
    if (state.kind !== 'ready') return
    const { session } = state.bench
    const save = () => void session.flush()
    window.addEventListener('pagehide', save)
    document.addEventListener('visibilitychange', save)
    return () => {
      window.removeEventListener('pagehide', save)
      document.removeEventListener('visibilitychange', save)
    }
  }, [state])

  return { state, reopen }
}

function closeBench(bench: Bench | null): void {
  void bench?.session.flush()
  bench?.player.close()
}

async function openBench(id: HighlightId): Promise<BenchState> {
  const loaded = await loadEdit(id)
  if (!loaded.ok) return loaded.reason === 'not-found' ? { kind: 'not-found' } : { kind: 'unreadable-record', newer: loaded.reason === 'newer-version' }
  const files = await filesOf(loaded.edit)
  if (!(files instanceof Map)) return files
  const session = new EditSession(loaded.edit, loaded.steps, loaded.position)
  const player = new Player()
  const passage = loaded.edit.highlight.passages[0]
  const reply = passage && (await player.open(loaded.edit, passage.id, files))
  if (!reply?.ok) {
    player.close()
    return { kind: 'source-unreadable', fileName: reply?.fileName ?? loaded.edit.highlight.name }
  }
  return { kind: 'ready', bench: { session, player, files } }
}

async function filesOf(edit: Edit): Promise<Map<RecordingId, Blob> | BenchState> {
  const files = new Map<RecordingId, Blob>()
  for (const recording of edit.recordings) {
    const found = await recordingFile(recording.id)
    if (!found.ok) return { kind: 'source-missing', recording, needsPermission: found.reason === 'needs-permission' }
    files.set(recording.id, found.file)
  }
  return files
}
