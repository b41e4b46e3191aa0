import { useEffect, useRef } from 'react'
import { recognise } from '@/core/detect/regions/fingerprint'
import { isSure } from '@/core/detect/regions/proposal'
import { isPerson } from '@/core/model/region'
import { setupOf } from '@/core/model/edit'
import type { Setup } from '@/core/model/setup'
import { recipeByItself } from '@/store/recipes'
import { keptSetups } from '@/store/setups'
import { useOffer } from '@/ui/useOffer'
import { whenCalm } from '@/ui/whenCalm'
import { applySetup } from '@/edit/regions'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { useBenchContext, useHighlight, useParts } from '../benchContext'
import { bringImages } from '../bringImages'
import { lookAt } from '@/shared/looks/looks'
import { acceptAllFound } from './acceptFound'
import { wording } from './wording'

/** Somebody who has just opened a highlight has other things to look at first. */
const STAYS_MS = 20_000

/**
 * Looks at a recording that nobody has said anything about, once, and compares it with the kept setups. A sure match is
 * applied and said so, with undo at hand; an unsure one is offered. Where none fits, regions that are found for sure
 * are set in the same way, if they show somebody or slides. Where the person has begun to set regions, or has taken
 * them back, nothing is done.
 */
export function useRecognition(): void {
  const bench = useBenchContext()
  const { session, files } = bench
  const { passages } = useHighlight()
  const { recording, setup, passage } = useParts()
  const offer = useOffer()
  const asked = useRef(false)
  const untouched = passages.length === 1 && setup.basedOn === null && setup.isGuess
  const { id: setupId } = setup
  const { id: passageId } = passage
  useEffect(() => {
    const file = files.get(recording.id)
    if (asked.current || !untouched || !file) return
    const isUntouched = () => {
      const { value, steps, position } = session.store.getState().history
      return position === steps.length && value.setups.find((s) => s.id === setupId)?.isGuess === true
    }
    const compare = async () => {
      if (!isUntouched()) return
      const setups = (await keptSetups()).filter((s) => s.fingerprint)
      const look = await lookAt(recording, file, session.value, 'by-itself')
      if (!look || !isUntouched()) return
      const match = recognise<Setup>(look.fingerprint, setups)
      if (match.kind === 'none') {
        const sure = look.proposals.filter(isSure)
        if (!sure.some(({ role }) => isPerson(role) || role === 'slides')) return
        const anew = session.store.getState().history.position === 0
        const found = { setupId, passageId, size: recording.video, proposals: sure }
        if (!(await acceptAllFound(session, found, { anew, byItself: true, wanted: isUntouched }))) return
        const set = setupOf(session.value, setupId).regions.filter((r) => r.isGuess)
        return offer({
          words: wording.foundByItself(set.map((r) => r.name)),
          button: wording.undo,
          act: () => session.undo(),
          staysMs: STAYS_MS,
        })
      }
      const words = wording.looksLike(match.match.name, match.likeness.toFixed(2))
      const gesture = crypto.randomUUID()
      const whole = await recipeByItself(match.match.id)
      /** Regions, and what the setup's recipe lays out by itself: the same whoever says that it is this setup. */
      const apply = async () => {
        applySetup(session, { setupId, kept: match.match }, gesture)
        if (!whole) return
        await bringImages(bench, picturesOfRecipe(whole))
        applyRecipe(session, { passageId, whole }, gesture)
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
    return whenCalm(() => {
      asked.current = true
      void compare()
    })
  }, [untouched, recording, setupId, passageId, bench, files, session, offer])
}
