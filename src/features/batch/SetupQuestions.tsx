'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import type { SetupId } from '@/core/model/ids'
import { acceptResemblance } from '@/shared/looks/answerQuestion'
import { QuestionRow } from '@/shared/looks/QuestionRow'
import { openQuestions, rejectResemblance, type OpenQuestion } from '@/store/resemblances'
import { wording } from './wording'

/** Which kept setups recordings look like, those of one setup answered at once. */
export function SetupQuestions() {
  const questions = useLiveQuery(openQuestions, [])
  const { enqueueSnackbar } = useSnackbar()
  const bySetup = new Map<SetupId, OpenQuestion[]>()
  for (const q of questions ?? []) bySetup.set(q.setup.id, [...(bySetup.get(q.setup.id) ?? []), q])
  const accept = async (open: readonly OpenQuestion[]) => {
    let done = 0
    for (const question of open) done += await acceptResemblance(question)
    enqueueSnackbar(wording.setupUsedIn(open[0]?.setup.name ?? '', done))
  }
  return [...bySetup.values()].map((open) => (
    <QuestionRow
      key={open[0]?.setup.id}
      setupName={open[0]?.setup.name ?? ''}
      words={wording.recordingsLookLike(
        open.map((q) => q.recording.name),
        open[0]?.setup.name ?? '',
      )}
      yes={wording.useForAll(open.length)}
      onYes={() => void accept(open)}
      onNo={() => open.forEach((q) => void rejectResemblance(q.recording.id))}
    />
  ))
}
