import type { RecordingId } from '@/core/model/ids'
import { makeBackup, type BackupOpened, type Bytes } from '@/media/bundle/backupFile'
import { keepWhole, openRenderFile } from '@/media/render/partFile'
import { allRecords, restoreRecords, type Restored, type RestoreMode } from '@/store/backup'
import { keepTextBeside, textBeside } from '@/store/captionTexts'
import type { FileOwner } from '@/store/database'
import { holdFile, keepFile, storedFile } from '@/store/recordings'

export interface BackUpWish {
  recordings: boolean
  finished: boolean
}

/** How many bytes the recordings and the finished files have. */
export async function backUpSizes(): Promise<{ recordings: number; finished: number }> {
  const { recording, render } = await allRecords(true)
  const finished = render.reduce((sum, r) => sum + (r.state.kind === 'finished' ? r.state.file.sizeBytes + r.state.file.extras.reduce((s, e) => s + e.sizeBytes, 0) : 0), 0)
  return { recordings: recording.reduce((sum, r) => sum + r.sizeBytes, 0), finished }
}

/** The whole Shelf and Rack as one file on disk, and the names of files whose bytes could not be had. Rejects when the disk is full or `signal` says to stop. */
export async function backUpShelf(wish: BackUpWish, onProgress: (share: number) => void, signal: AbortSignal): Promise<{ file: File; missing: string[] }> {
  const records = await allRecords(wish.finished)
  const files: Bytes[] = []
  const missing: string[] = []
  const owners: { id: FileOwner; fileName: string }[] = [...(wish.recordings ? records.recording : []), ...records.soundFile, ...records.imageFile, ...records.fontFile]
  for (const { id, fileName } of owners) {
    const found = await storedFile(id)
    if (found.ok) files.push({ kind: 'file', id, fileName, type: found.file.type, blob: found.file })
    else missing.push(fileName)
  }
  for (const { id } of records.recording) {
    const text = await textBeside(id)
    if (text) files.push({ kind: 'text', id, fileName: text.fileName, type: text.blob.type, blob: text.blob })
  }
  for (const { id, state } of records.render) {
    if (state.kind !== 'finished') continue
    for (const own of [{ id, fileName: state.file.fileName }, ...state.file.extras.map(({ kind }) => ({ id: `${id}.${kind}`, fileName: kind === 'poster' ? 'still.png' : 'loop.gif' }))]) {
      const blob = await openRenderFile(own.id)
      if (blob) files.push({ kind: 'render', ...own, type: '', blob })
      else missing.push(own.fileName)
    }
  }
  return { file: await makeBackup(records, files, onProgress, signal), missing }
}

/** Puts a backup back. False in `kept` when the disk was full: files that found no room can be used until the tab is closed. */
export async function restoreShelf({ records, files, madeAt }: Extract<BackupOpened, { ok: true }>, mode: RestoreMode): Promise<Restored & { kept: boolean }> {
  const restored = await restoreRecords(records, mode, madeAt)
  let kept = true
  for (const { kind, id, fileName, type, blob } of files) {
    const file = new File([blob], fileName, { type })
    if (kind === 'render') kept = (await openRenderFile(id)) !== null || ((await keepWhole(id, blob).catch(() => null)) !== null && kept)
    else if (kind === 'text') {
      if (!(await textBeside(id as RecordingId))) await keepTextBeside(id as RecordingId, file).catch(() => (kept = false))
    } else {
      const there = await storedFile(id as FileOwner)
      if (there.ok || there.reason === 'needs-permission') continue
      holdFile(id as FileOwner, file)
      kept = (await keepFile({ owner: id as FileOwner, kind: 'kept', blob: file })).ok && kept
    }
  }
  return { ...restored, kept }
}
