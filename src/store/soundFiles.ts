import type { SoundFile } from '@/core/model/bed'
import type { SoundFileId } from '@/core/model/ids'
import { readRecord } from '@/core/model/migrate'
import { newRecord } from '@/core/model/record'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { holdFile, keepRecordWithFile, type KeepResult } from './recordings'

export type NewSoundFile = Omit<SoundFile, 'id' | 'schemaVersion' | 'createdAt' | 'updatedAt' | 'deletedAt'>

/**
 * Keeps a music or voice file; it can be used in this tab at once. Throws TypeError when the facts are no sound
 * file's.
 */
export async function addSoundFile(
  facts: NewSoundFile,
  file: File,
): Promise<{ soundFile: SoundFile; kept: KeepResult }> {
  const checked = readRecord('soundFile', { ...newRecord(nowStamp()), ...facts, id: newId<SoundFileId>() })
  if (!checked.ok) throw new TypeError(`soundFile: ${checked.problems.join('; ')}`)
  const kept = await keepRecordWithFile(database().soundFiles, checked.record, {
    owner: checked.record.id,
    kind: 'kept',
    blob: file,
  })
  holdFile(checked.record.id, file)
  return { soundFile: checked.record, kept }
}
