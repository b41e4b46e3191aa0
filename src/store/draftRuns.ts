import {
  newId,
  type DraftRunId,
  type HighlightId,
  type OutletId,
  type RecipeId,
  type RecordingId,
} from '@/core/model/ids'
import type { ProposedMoment } from '@/core/detect/moments'
import type { Shape } from '@/core/model/shape'
import type { Micros } from '@/core/time/micros'
import { nowStamp } from './clock'
import { database } from './database'
import { binHighlight } from './highlights'

/** What drafts are asked for. */
export interface DraftWish {
  recordingIds: readonly RecordingId[]
  count: number
  /** All together no longer. */
  mostTotalMicros: Micros
  /** None is longer. */
  mostMicros: Micros
  shapes: readonly Shape[]
  /** Where they are headed, for how loud they are to be; null: nowhere said. */
  outletId: OutletId | null
  /** Null: what suits each. */
  recipeId: RecipeId | null
  takesOutDeadAir: boolean
  writesWords: boolean
}

/**
 * A moment that becomes a highlight; the highlight's id is chosen before it is made, so that what is cut short is the
 * same one when it is taken up again.
 */
export interface DraftPick {
  recordingId: RecordingId
  moment: ProposedMoment
  highlightId: HighlightId
  state: 'waiting' | 'made' | 'failed'
}

/**
 * Drafts that were asked for at one time. *finding*: the recordings are being looked through; *making*: the picks are
 * known; *closed*: nobody is told of it any more. A recording that could not be looked through is in `unread`.
 */
export interface DraftRun {
  id: DraftRunId
  createdAt: string
  wish: DraftWish
  state: 'finding' | 'making' | 'done' | 'stopped' | 'closed'
  picks: readonly DraftPick[]
  unread: readonly RecordingId[]
  /** Why it stopped, in words, where nobody stopped it. */
  problem: string | null
}

export const isGoing = ({ state }: DraftRun): boolean => state === 'finding' || state === 'making'

/** Notes what is wanted, to be made at once. Rejects when the disk is full. */
export async function askForDrafts(wish: DraftWish): Promise<DraftRun> {
  const run: DraftRun = {
    id: newId<DraftRunId>(),
    createdAt: nowStamp(),
    wish,
    state: 'finding',
    picks: [],
    unread: [],
    problem: null,
  }
  await database().draftRuns.put(run)
  return run
}

/** What was asked for and is not made yet, the oldest first. */
export async function goingRuns(): Promise<DraftRun[]> {
  return (await database().draftRuns.orderBy('createdAt').toArray()).filter(isGoing)
}

/** What was asked for last. */
export async function latestRun(): Promise<DraftRun | null> {
  return (await database().draftRuns.orderBy('createdAt').last()) ?? null
}

export async function draftRun(id: DraftRunId): Promise<DraftRun | null> {
  return (await database().draftRuns.get(id)) ?? null
}

/** Notes how far a run has come, unless somebody has stopped it. False: it was stopped. */
export async function noteRun(
  id: DraftRunId,
  part: Partial<Pick<DraftRun, 'state' | 'picks' | 'unread' | 'problem'>>,
): Promise<boolean> {
  const { draftRuns } = database()
  return database().transaction('rw', draftRuns, async () => {
    const run = await draftRuns.get(id)
    if (!run || !isGoing(run)) return false
    await draftRuns.put({ ...run, ...part })
    return true
  })
}

/** Ends a run; what is made of it stays. */
export async function stopRun(id: DraftRunId): Promise<void> {
  await noteRun(id, { state: 'stopped' })
}

/** Tells nobody of a run any more. */
export async function closeRun(id: DraftRunId): Promise<void> {
  await database().draftRuns.update(id, { state: 'closed' })
}

/** Ends a run and puts every highlight of it into the bin, but those that somebody has kept. How many that were. */
export async function takeBackRun(id: DraftRunId): Promise<number> {
  const db = database()
  return db.transaction('rw', db.draftRuns, db.highlights, async () => {
    const run = await db.draftRuns.get(id)
    if (!run) return 0
    await db.draftRuns.put({ ...run, state: 'closed' })
    const made = await db.highlights.bulkGet(run.picks.map((p) => p.highlightId))
    const open = made.filter((h) => h && !h.deletedAt && !h.draft?.isKept)
    for (const h of open) if (h) await binHighlight(h.id, true)
    return open.length
  })
}
