import type { RecordingId, SetupId } from '@/core/model/ids'
import type { Highlight } from '@/core/model/highlight'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import { database } from './database'
import { highlightsOnShelf } from './highlights'
import { recordingsOnShelf } from './recordings'
import { keptSetups } from './setups'

/** A kept setup that a recording may have. Whether it does is for somebody to say; what was said is remembered. */
export interface Resemblance {
  recordingId: RecordingId
  setupId: SetupId
  /** 0..1 */
  likeness: number
  isRejected: boolean
}

/** A resemblance that nobody has answered, with what it is between. */
export interface OpenQuestion {
  recording: Recording
  setup: Setup
  likeness: number
}

/** Asks whether a recording has a kept setup, unless somebody has said that it has not. False: it is not asked. */
export async function askWhether(recordingId: RecordingId, setupId: SetupId, likeness: number): Promise<boolean> {
  const { resemblances } = database()
  const known = await resemblances.get(recordingId)
  if (known?.setupId === setupId && known.isRejected) return false
  await resemblances.put({ recordingId, setupId, likeness, isRejected: false })
  return true
}

/** A recording does not have the setup that was asked about. */
export async function rejectResemblance(recordingId: RecordingId): Promise<void> {
  await database().resemblances.update(recordingId, { isRejected: true })
}

/** It is known which setup a recording has. */
export async function settleResemblance(recordingId: RecordingId): Promise<void> {
  await database().resemblances.delete(recordingId)
}

/** What is still to be answered, of recordings and setups that are there. */
export async function openQuestions(): Promise<OpenQuestion[]> {
  const open = await database()
    .resemblances.filter((r) => !r.isRejected)
    .toArray()
  if (open.length === 0) return []
  const [recordings, setups] = await Promise.all([recordingsOnShelf(), keptSetups()])
  return open.flatMap(({ recordingId, setupId, likeness }) => {
    const recording = recordings.find((r) => r.id === recordingId)
    const setup = setups.find((s) => s.id === setupId)
    return recording && setup ? [{ recording, setup, likeness }] : []
  })
}

/** The highlights that begin with a recording. */
export async function highlightsOf(id: RecordingId): Promise<Highlight[]> {
  return (await highlightsOnShelf()).filter(({ passages: [first] }) => first?.recordingId === id)
}
