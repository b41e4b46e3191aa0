import type { Bed } from '@/core/model/bed'
import type { BedId } from '@/core/model/ids'
import { command } from './command'

/** What is heard under a highlight, and how loud all of it is. */

export const insertBed = command<{ bed: Bed }>({
  id: 'insert-bed',
  label: 'Add music',
  apply: (draft, { bed }) => void draft.highlight.beds.push(bed),
})

export const changeBed = command<{ id: BedId; part: Partial<Bed> }>({
  id: 'change-bed',
  label: 'Change music',
  apply: (draft, { id, part }) => {
    draft.highlight.beds = draft.highlight.beds.map((b) => (b.id === id ? { ...b, ...part } : b))
  },
})

export const removeBed = command<{ id: BedId }>({
  id: 'remove-bed',
  label: 'Remove music',
  apply: (draft, { id }) => {
    draft.highlight.beds = draft.highlight.beds.filter((b) => b.id !== id)
  },
})

/** Holds the peaks of the mix under a ceiling, dBTP, or (null) leaves them as they come. */
export const holdPeaks = command<{ limitDb: number | null }>({
  id: 'hold-peaks',
  label: ({ limitDb }) => (limitDb === null ? 'Leave peaks as they come' : 'Limit peaks'),
  apply: ({ highlight }, { limitDb }) => {
    highlight.limitDb = limitDb
  },
})

/** Makes everything that is heard louder or softer by `db`; with a limit, peaks are held under it, dBTP. */
export const changeGain = command<{ db: number; limitDb: number | null }>({
  id: 'change-gain',
  label: 'Change loudness',
  apply: ({ highlight }, { db, limitDb }) => {
    for (const { sound } of highlight.passages) if (!sound.muted) sound.gainDb += db
    for (const bed of highlight.beds) bed.gainDb += db
    if (limitDb !== null) highlight.limitDb = limitDb
  },
})
