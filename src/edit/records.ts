import type { Edit } from '@/core/model/edit'
import type { Host } from './command'

const KINDS = ['recordings', 'soundFiles', 'imageFiles', 'fontFiles', 'setups', 'layouts'] as const

/** Records that something done to an edit will refer to. */
export type Records = Partial<Pick<Edit, (typeof KINDS)[number]>>

/** Adds records that an edit lacks. Not a step of its history: they stay when what needed them is undone. */
export function addRecords(host: Host, records: Records): void {
  host.extend((draft) => {
    for (const kind of KINDS) {
      const there: { id: string }[] = draft[kind]
      there.push(...(records[kind] ?? []).filter((added) => there.every((r) => r.id !== added.id)))
    }
  })
}
