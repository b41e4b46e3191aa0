import type { CaptionsRead } from '@/core/interchange/captionFile'
import type { Mark, MarksRead } from '@/core/interchange/mark'
import type { OtioRead } from '@/core/interchange/otio/readOtio'
import type { RackFileResult } from '@/core/interchange/rackFile'
import type { Recording } from '@/core/model/recording'
import type { BackupOpened } from '../bundle/backupFile'
import type { BundleOpened } from '../bundle/openBundle'

/**
 * Reads files that came from elsewhere; what each method answers is told where its reader stands (core/interchange,
 * media/bundle).
 */
export interface ReadWorker {
  /** Answers once the worker runs: from then on its time counts. */
  ready(): void
  captions(file: Blob): Promise<CaptionsRead>
  /** Marks in CSV, WebVTT or EDL, told apart by the file's ending, or else by how it begins. */
  marks(file: Blob, fileName: string, recording: Pick<Recording, 'video' | 'durationMicros'>): Promise<MarksRead>
  chapters(file: Blob): Promise<Mark[]>
  bundle(file: File): Promise<BundleOpened>
  isBackup(file: Blob): Promise<boolean>
  /** `onProgress`: share of its bytes that are read, 0..1. */
  backup(file: Blob, onProgress: (share: number) => void): Promise<BackupOpened>
  rack(file: Blob, knownFonts: readonly string[]): Promise<RackFileResult>
  timeline(file: Blob): Promise<OtioRead>
}
