import type { Edit } from '@/core/model/edit'
import type { HighlightId, VersionId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import type { Version } from '@/core/model/version'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { readAll } from './readAll'
import { database } from './database'

/** Gives the present state of a highlight a name to come back to. */
export async function keepVersion(edit: Edit, name: string): Promise<Version> {
  const version = newVersion(edit, name)
  await database().versions.add(version)
  return version
}

/** A named version, not stored yet. */
export function newVersion(edit: Edit, name: string): Version {
  return { ...newRecord(nowStamp()), id: newId<VersionId>(), highlightId: edit.highlight.id, name, edit }
}

/** A highlight's named versions, newest first. */
export async function versionsOf(id: HighlightId): Promise<Version[]> {
  const all = await database().versions.where('highlightId').equals(id).toArray()
  return readAll('version', all).sort((a, b) => b.createdAt.localeCompare(a.createdAt))
}

export async function deleteVersion(id: VersionId): Promise<void> {
  await database().versions.delete(id)
}
