import { startTransition, useCallback, useEffect, useState } from 'react'
import { usedRecordings, type Edit } from '@/core/model/edit'
import type { HighlightId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import { listOwnFont } from '@/media/fonts/loadFonts'
import { Player } from '@/media/playback/player'
import type { OpenReply } from '@/media/workers/preview.protocol'
import { PreviewCopyKeeper } from '@/shared/previewCopies/previewCopyKeeper'
import { editSession, loadEdit } from '@/store/highlights'
import { storedFile } from '@/store/recordings'
import type { EditSession } from '@/store/highlights'
import { CalmEdit } from './calmEdit'

export interface Bench {
  session: EditSession
  player: Player
  copies: PreviewCopyKeeper
  calm: CalmEdit
  /** The bytes of recordings and sound files by id; grows when one is added. */
  files: Map<string, Blob>
}

export type BenchState =
  | { kind: 'loading' }
  | { kind: 'not-found' }
  | { kind: 'unreadable-record'; newer: boolean }
  | { kind: 'source-missing'; recording: Recording; needsPermission: boolean }
  | { kind: 'source-unreadable'; fileName: string }
  | { kind: 'preview-broken' }
  | { kind: 'ready'; bench: Bench }

/**
 * Opens a highlight for work: its edit with history, its recordings' files, a player. Closes and saves when it is
 * left.
 */
export function useBench(id: string): { state: BenchState; reopen: () => void } {
  const [state, setState] = useState<BenchState>({ kind: 'loading' })
  const [attempt, setAttempt] = useState(0)
  const reopen = useCallback(() => setAttempt((n) => n + 1), [])

  useEffect(() => {
    let live = true
    let opened: Bench | null = null
    setState({ kind: 'loading' })
    void openBench(id as HighlightId).then(({ state, pictures }) => {
      if (state.kind === 'ready') opened = state.bench
      // A whole screen appears: in slices, so that nothing waits for it. Long recordings are opened meanwhile.
      if (live) startTransition(() => setState(state))
      else closeBench(opened)
      void pictures?.then(
        (reply) => {
          if (live && !reply.ok) setState({ kind: 'source-unreadable', fileName: reply.fileName })
        },
        () => live && setState({ kind: 'preview-broken' }),
      )
    })
    return () => {
      live = false
      closeBench(opened)
    }
  }, [id, attempt])

  return { state, reopen }
}

function closeBench(bench: Bench | null): void {
  void bench?.session.flush()
  bench?.copies.close()
  bench?.calm.close()
  bench?.player.close()
}

async function openBench(id: HighlightId): Promise<{ state: BenchState; pictures?: Promise<OpenReply> }> {
  const loaded = await loadEdit(id)
  if (!loaded.ok)
    return {
      state:
        loaded.reason === 'not-found'
          ? { kind: 'not-found' }
          : { kind: 'unreadable-record', newer: loaded.reason === 'newer-version' },
    }
  const files = await filesOf(loaded.edit)
  if (!(files instanceof Map)) return { state: files }
  for (const { id, name } of loaded.edit.fontFiles) {
    const file = files.get(id)
    if (file) listOwnFont(name, file)
  }
  const session = editSession(loaded)
  const player = new Player()
  const pictures = player.open(loaded.edit, files)
  const copies = new PreviewCopyKeeper({ edit: () => session.value, files, player })
  const calm = new CalmEdit(session, window)
  let playing = session.value.highlight.passages
  session.store.subscribe(() => {
    const { passages } = session.value.highlight
    if (passages !== playing) copies.changed()
    playing = passages
  })
  return { state: { kind: 'ready', bench: { session, player, copies, calm, files } }, pictures }
}

/** The files of everything an edit uses; those that only undo may need are taken when they are there. */
async function filesOf(edit: Edit): Promise<Map<string, Blob> | BenchState> {
  const files = new Map<string, Blob>()
  const used = usedRecordings(edit)
  for (const recording of edit.recordings) {
    const stored = await storedFile(recording.id)
    if (stored.ok) files.set(recording.id, stored.file)
    else if (used.includes(recording))
      return { kind: 'source-missing', recording, needsPermission: stored.reason === 'needs-permission' }
  }
  for (const { id } of [...edit.soundFiles, ...edit.imageFiles, ...edit.fontFiles]) {
    const found = await storedFile(id)
    if (found.ok) files.set(id, found.file)
  }
  return files
}
