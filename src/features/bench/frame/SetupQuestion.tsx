'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import { recipeByItself } from '@/store/recipes'
import { openQuestions, rejectResemblance } from '@/store/resemblances'
import { acceptResemblance } from '@/shared/looks/answerQuestion'
import { RecordingQuestion } from '@/shared/looks/QuestionRow'
import { useBenchContext, useCalmParts } from '../benchContext'
import { useKeptSetup } from './useKeptSetup'

/** Whether the recording worked on has a kept setup that it looks like, as long as nobody has said. */
export function SetupQuestion() {
  const { session } = useBenchContext()
  const { recording } = useCalmParts()
  const takeSetup = useKeptSetup()
  const open = useLiveQuery(async () => {
    const question = (await openQuestions()).find((q) => q.recording.id === recording.id)
    return question ? { question, recipe: await recipeByItself(question.setup.id) } : null
  }, [recording.id])
  if (!open) return null
  const { question, recipe } = open
  return (
    <RecordingQuestion
      question={question}
      recipeName={recipe?.recipe.name ?? null}
      onYes={() => {
        void takeSetup(question.setup).then(() => acceptResemblance(question, session.value.highlight.id))
      }}
      onNo={() => void rejectResemblance(recording.id)}
    />
  )
}
