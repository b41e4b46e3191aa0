import type { RecordingId } from '@/core/model/ids'
import { readRecord } from '@/core/model/migrate'
import { newRecord } from '@/core/model/record'
import { DEFAULT_WEIGHTS, MAX_MOMENTS, type Moment, type Spotting } from '@/core/model/spotting'
import { nowStamp, stampAfter } from './clock'
import { database } from './database'
import { readAll } from './readAll'
import { Session } from './session'

function newSpotting(id: RecordingId): Spotting {
  return {
    ...newRecord(nowStamp()),
    id,
    moments: [],
    weights: DEFAULT_WEIGHTS,
    reactionMicros: 4_000_000,
    mostMicros: 60_000_000,
    proposals: 15,
  }
}

export type SpottingSession = Session<Spotting>

/**
 * The work on a recording's moments, as it was left. One that cannot be read is begun anew; what was stored stays
 * until something is changed.
 */
export async function openSpotting(id: RecordingId): Promise<SpottingSession> {
  const db = database()
  const stored = await db.spottings.get(id)
  const read = stored && readRecord('spotting', stored)
  const value = read?.ok ? read.record : newSpotting(id)
  const undo = read?.ok ? await db.undo.get(id) : undefined
  let known = stored?.updatedAt ?? null
  return new Session(
    value,
    undo?.steps ?? [],
    undo?.position ?? 0,
    (spotting, steps, position) =>
      db.transaction('rw', db.spottings, db.undo, async () => {
        const there = await db.spottings.get(id)
        if ((there?.updatedAt ?? null) !== known) return 'conflict'
        const updatedAt = stampAfter(known ?? nowStamp())
        await db.spottings.put({ ...spotting, updatedAt })
        await db.undo.put({ owner: id, steps: [...steps], position })
        known = updatedAt
        return 'written'
      }),
    ({ moments }) => (moments.length > MAX_MOMENTS ? 'moments' : null),
  )
}

/** The moments of every recording that were kept, or cut, in order of time. */
export async function keptMoments(): Promise<Map<RecordingId, Moment[]>> {
  const all = readAll('spotting', await database().spottings.toArray())
  const isKept = ({ state }: Moment) => state === 'kept' || state === 'cut'
  return new Map(all.map(({ id, moments }) => [id, moments.filter(isKept).sort((a, b) => a.inMicros - b.inMicros)]))
}
