import { MAX_CAPTION_BYTES, readCaptions, type CaptionsRead } from '@/core/interchange/captionFile'
import { chaptersInFile } from '@/core/interchange/chaptersInFile'
import type { Mark, MarksRead } from '@/core/interchange/mark'
import { MAX_MARK_BYTES, readMarks } from '@/core/interchange/readMarks'
import { MAX_OTIO_CHARACTERS, readOtio, type OtioRead } from '@/core/interchange/otio/readOtio'
import { MAX_RACK_FILE_BYTES, readRackFile, type RackFileResult } from '@/core/interchange/rackFile'
import { isBackup, openBackup, type BackupOpened } from '../bundle/backupFile'
import { openBundle, type BundleOpened } from '../bundle/openBundle'
import type { ReadWorker } from '../workers/read.protocol'

/** Reads foreign files: sizes are looked at before anything is read. */
export class ReadService implements ReadWorker {
  ready(): void {}

  async captions(file: Blob): Promise<CaptionsRead> {
    if (file.size > MAX_CAPTION_BYTES) return { ok: false, reason: 'too-large', problems: [] }
    return readCaptions(new Uint8Array(await file.arrayBuffer()))
  }

  async marks(file: Blob, fileName: string, recording: Parameters<ReadWorker['marks']>[2]): Promise<MarksRead> {
    if (file.size > MAX_MARK_BYTES) return { marks: [], problems: [{ line: 0, reason: 'too-large', text: '' }] }
    return readMarks(fileName, await file.text(), recording)
  }

  chapters(file: Blob): Promise<Mark[]> {
    return chaptersInFile(
      async (offset, length) => new Uint8Array(await file.slice(offset, offset + length).arrayBuffer()),
      file.size,
    )
  }

  bundle(file: File): Promise<BundleOpened> {
    return openBundle(file)
  }

  isBackup(file: Blob): Promise<boolean> {
    return isBackup(file)
  }

  backup(file: Blob, onProgress: (share: number) => void): Promise<BackupOpened> {
    return openBackup(file, onProgress)
  }

  async rack(file: Blob, knownFonts: readonly string[]): Promise<RackFileResult> {
    return file.size > MAX_RACK_FILE_BYTES
      ? { ok: false, reason: 'too-large', detail: '' }
      : readRackFile(await file.text(), knownFonts)
  }

  async timeline(file: Blob): Promise<OtioRead> {
    return file.size > MAX_OTIO_CHARACTERS ? { ok: false, reason: 'too-large' } : readOtio(await file.text())
  }
}
