import type { RecordingId } from '@/core/model/ids'
import { makeBackup, type BackupOpened, type Bytes } from '@/media/bundle/backupFile'
import { keepWhole, openRenderFile } from '@/media/render/partFile'
import { allRecords, restoreBackup, type Restored, type RestoreMode } from '@/store/backup'
import { textBeside } from '@/store/captionTexts'
import type { FileOwner } from '@/store/database'
import { storedFile } from '@/store/recordings'

export interface BackUpWish {
  recordings: boolean
  finished: boolean
}

/** How many bytes the recordings and the finished files have. */
export async function backUpSizes(): Promise<{ recordings: number; finished: number }> {
  const { recording, render } = await allRecords(true)
  const finished = render.reduce(
    (sum, r) =>
      sum +
      (r.state.kind === 'finished'
        ? r.state.file.sizeBytes + r.state.file.extras.reduce((s, e) => s + e.sizeBytes, 0)
        : 0),
    0,
  )
  return { recordings: recording.reduce((sum, r) => sum + r.sizeBytes, 0), finished }
}

/**
 * The whole Shelf and Rack as one file on disk, and the names of files whose bytes could not be had. Rejects when the
 * disk is full or `signal` says to stop.
 */
export async function backUpShelf(
  wish: BackUpWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<{ file: File; missing: string[] }> {
  const records = await allRecords(wish.finished)
  const files: Bytes[] = []
  const missing: string[] = []
  const owners: { id: FileOwner; fileName: string }[] = [
    ...(wish.recordings ? records.recording : []),
    ...records.soundFile,
    ...records.imageFile,
    ...records.fontFile,
  ]
  for (const { id, fileName } of owners) {
    const stored = await storedFile(id)
    if (stored.ok) files.push({ kind: 'file', id, fileName, type: stored.file.type, blob: stored.file })
    else missing.push(fileName)
  }
  for (const { id } of records.recording) {
    const text = await textBeside(id)
    if (text) files.push({ kind: 'text', id, fileName: text.fileName, type: text.blob.type, blob: text.blob })
  }
  for (const { id, state } of records.render) {
    if (state.kind !== 'finished') continue
    for (const own of [
      { id, fileName: state.file.fileName },
      ...state.file.extras.map(({ kind }) => ({
        id: `${id}.${kind}`,
        fileName: kind === 'poster' ? 'still.png' : 'loop.gif',
      })),
    ]) {
      const blob = await openRenderFile(own.id)
      if (blob) files.push({ kind: 'render', ...own, type: '', blob })
      else missing.push(own.fileName)
    }
  }
  return { file: await makeBackup(records, files, onProgress, signal), missing }
}

/** Puts a backup back: all of it, or nothing. Rejects when the disk is full. */
export async function restoreShelf(
  { records, files, madeAt }: Extract<BackupOpened, { ok: true }>,
  mode: RestoreMode,
): Promise<Restored> {
  // Finished files lie outside the database. They come first: without their records they are swept away at the next
  // start.
  for (const { kind, id, blob } of files)
    if (kind === 'render' && !(await openRenderFile(id))) await keepWhole(id, blob)
  const asFiles = <I extends string>(kind: Bytes['kind']) =>
    new Map(
      files
        .filter((f) => f.kind === kind)
        .map(({ id, blob, fileName, type }) => [id as I, new File([blob], fileName, { type })]),
    )
  return restoreBackup(
    records,
    { files: asFiles<FileOwner>('file'), captions: asFiles<RecordingId>('text') },
    mode,
    madeAt,
  )
}
