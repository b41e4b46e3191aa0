import 'fake-indexeddb/auto'
import { beforeEach, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { RecordingId, SetupId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'
import { newSetup } from '@/core/model/setup'
import { acceptResemblance } from './answerQuestion'
import { bringInEdits } from '@/store/bringIn'
import { nowStamp } from '@/store/clock'
import { database } from '@/store/database'
import { highlightsOf, askWhether, openQuestions, rejectResemblance, settleResemblance } from '@/store/resemblances'

const EDIT = sampleEdit()
const RECORDING = EDIT.recordings[0]?.id as RecordingId
const KEPT = 'evening' as SetupId

beforeEach(async () => {
  await Promise.all(database().tables.map((table) => table.clear()))
  await bringInEdits({ edits: [EDIT], bytes: new Map([['r', new Blob(['film'])]]), filed: null })
  const regions = EDIT.setups[0]?.regions ?? []
  await database().setups.add(
    newSetup({ ...newRecord(nowStamp()), id: KEPT, name: 'Evening stream', regions, ownedBy: null }),
  )
})

const asked = async () => (await openQuestions()).map((q) => [q.recording.id, q.setup.name, q.likeness])

it('stay open until they are answered, and are not asked again once they were rejected', async () => {
  expect(await askWhether(RECORDING, KEPT, 0.5)).toBe(true)
  expect(await asked()).toEqual([[RECORDING, 'Evening stream', 0.5]])
  await rejectResemblance(RECORDING)
  expect(await asked()).toEqual([])
  expect(await askWhether(RECORDING, KEPT, 0.6)).toBe(false)
  expect(await askWhether(RECORDING, 'other' as SetupId, 0.6)).toBe(true)
  expect(await asked(), 'of a setup that is gone nobody asks').toEqual([])
  await settleResemblance(RECORDING)
  expect(await askWhether(RECORDING, KEPT, 0.6)).toBe(true)
})

it('that are accepted give their regions to every highlight in which nobody has placed anything, and to no other', async () => {
  await askWhether(RECORDING, KEPT, 0.5)
  const [question] = await openQuestions()
  if (!question) throw new Error('nobody asks')
  expect(await acceptResemblance(question), 'its regions were placed by somebody').toBe(0)
  await askWhether(RECORDING, KEPT, 0.5)
  const [first] = await highlightsOf(RECORDING)
  const own = first?.passages[0]?.setupId as SetupId
  await database().setups.update(own, { isGuess: true, regions: [] })
  expect(await acceptResemblance(question)).toBe(1)
  const setup = await database().setups.get(own)
  expect([setup?.basedOn, setup?.regions.length]).toEqual([KEPT, EDIT.setups[0]?.regions.length])
  expect(await openQuestions()).toEqual([])
})
