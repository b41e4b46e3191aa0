import { useEffect, useRef } from 'react'
import { recognise } from '@/core/detect/regions/fingerprint'
import type { Setup } from '@/core/model/setup'
import { recipeByItself } from '@/store/recipes'
import { keptSetups } from '@/store/setups'
import { useOffer } from '@/ui/useOffer'
import { applySetup } from '@/edit/regions'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { useBenchContext, useHighlight, useParts } from '../benchContext'
import { bringImages } from '../bringImages'
import { lookAt } from '@/shared/looks/looks'
import { wording } from './wording'

/** Somebody who has just opened a highlight has other things to look at first. */
const STAYS_MS = 20_000

/**
 * Compares a recording that nobody has said anything about with the kept setups, once. A sure match is applied and
 * said so, with undo at hand; an unsure one is offered. Where the person has begun to set regions, nothing is done.
 */
export function useRecognition(): void {
  const bench = useBenchContext()
  const { session, files } = bench
  const { passages } = useHighlight()
  const { recording, setup, passage } = useParts()
  const offer = useOffer()
  const asked = useRef(false)
  const untouched = passages.length === 1 && setup.basedOn === null && setup.isGuess
  useEffect(() => {
    const file = files.get(recording.id)
    if (asked.current || !untouched || !file) return
    asked.current = true
    const compare = async () => {
      const setups = (await keptSetups()).filter((s) => s.fingerprint)
      if (setups.length === 0) return
      const look = await lookAt(recording, file, session.value)
      const stillUntouched = session.value.setups.find((s) => s.id === setup.id)?.isGuess
      if (!look || !stillUntouched) return
      const match = recognise<Setup>(look.fingerprint, setups)
      if (match.kind === 'none') return
      const words = wording.looksLike(match.match.name, match.likeness.toFixed(2))
      const gesture = crypto.randomUUID()
      const whole = await recipeByItself(match.match.id)
      /** Regions, and what the setup's recipe lays out by itself: the same whoever says that it is this setup. */
      const apply = async () => {
        applySetup(session, { setupId: setup.id, kept: match.match }, gesture)
        if (!whole) return
        await bringImages(bench, picturesOfRecipe(whole))
        applyRecipe(session, { passageId: passage.id, whole }, gesture)
      }
      if (match.kind === 'unsure')
        return offer({
          words: wording.notSure(words),
          button: whole ? wording.useItWith(whole.recipe.name) : wording.useItsRegions,
          act: () => void apply(),
          staysMs: STAYS_MS,
        })
      await apply()
      offer({
        words: whole ? wording.laidOutBy(words, whole.recipe.name) : wording.itsRegionsAreSet(words),
        button: wording.undo,
        act: () => session.undo(),
        staysMs: STAYS_MS,
      })
    }
    void compare()
  }, [untouched, recording, setup.id, passage.id, bench, files, session, offer])
}
