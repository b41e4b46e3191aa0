import { z } from 'zod'
import { highlight } from './highlight'
import type { LayoutId, RecordingId, SetupId } from './ids'
import { layout, type Layout } from './layout'
import type { Passage } from './passage'
import { recording, type Recording } from './recording'
import { setup, type Setup } from './setup'

/**
 * Everything that decides how a highlight looks and sounds: the highlight and every record it refers to. What the Bench
 * works on, what a render keeps as "the exact edit it was made from", and all that the composer needs.
 */
export const edit = z.object({
  highlight,
  setups: z.array(setup),
  layouts: z.array(layout),
  recordings: z.array(recording),
})

export type Edit = z.infer<typeof edit>

function find<T extends { id: string }>(records: readonly T[], id: string, what: string): T {
  const found = records.find((r) => r.id === id)
  if (!found) throw new RangeError(`${what}: nothing with the id ${id} in this edit`)
  return found
}

export const setupOf = (edit: Edit, id: SetupId): Setup => find(edit.setups, id, 'setups')
export const layoutOf = (edit: Edit, id: LayoutId): Layout => find(edit.layouts, id, 'layouts')
export const recordingOf = (edit: Edit, id: RecordingId): Recording => find(edit.recordings, id, 'recordings')
export const passageOf = (edit: Edit, id: Passage['id']): Passage => find(edit.highlight.passages, id, 'passages')
