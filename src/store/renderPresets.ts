import type { RenderPresetId } from '@/core/model/ids'
import type { OutputChoice } from '@/core/model/outputChoice'
import { newRecord } from '@/core/model/record'
import type { RenderPreset } from '@/core/model/renderPreset'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'

/** Every preset, by name. */
export async function allRenderPresets(): Promise<RenderPreset[]> {
  return readAll('renderPreset', await database().renderPresets.toArray()).sort((a, b) => a.name.localeCompare(b.name))
}

/** Keeps render settings under a name; those kept under the same name before are replaced. */
export async function keepRenderPreset(name: string, output: OutputChoice): Promise<void> {
  const table = database().renderPresets
  await database().transaction('rw', table, async () => {
    const same = (await table.toArray()).find((p) => p.name === name)
    await table.put({
      ...(same ?? { ...newRecord(nowStamp()), id: newId<RenderPresetId>() }),
      name,
      output,
      updatedAt: nowStamp(),
    })
  })
}

export async function deleteRenderPreset(id: RenderPresetId): Promise<void> {
  await database().renderPresets.delete(id)
}
