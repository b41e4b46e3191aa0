import { useEffect, useRef } from 'react'
import { recognise } from '@/core/detect/regions/fingerprint'
import { isSure } from '@/core/detect/regions/proposal'
import { setupOf } from '@/core/model/edit'
import { isPerson } from '@/core/model/region'
import { isGuessedAt, type Setup } from '@/core/model/setup'
import { askWhether, settleResemblance } from '@/store/resemblances'
import { keptSetups } from '@/store/setups'
import { useOffer } from '@/ui/useOffer'
import { whenCalm } from '@/ui/whenCalm'
import { useBenchContext, useHighlight, useParts } from '../benchContext'
import { lookAt } from '@/shared/looks/looks'
import { acceptAllFound } from '@/shared/looks/acceptFound'
import { useKeptSetup } from './useKeptSetup'
import { wording } from './wording'

/** Somebody who has just opened a highlight has other things to look at first. */
const STAYS_MS = 20_000

/**
 * Looks at a recording that nobody has said anything about, once, and compares it with the kept setups. A sure match is
 * applied and said so, with undo at hand; an unsure one is asked about wherever the recording is seen, until somebody
 * answers. Where none fits, regions that are found for sure are set in the same way, if they show somebody or slides.
 * Where the person has begun to set regions, or has taken them back, nothing is done.
 */
export function useRecognition(): void {
  const { session, files } = useBenchContext()
  const { passages } = useHighlight()
  const { recording, setup, passage } = useParts()
  const offer = useOffer()
  const takeSetup = useKeptSetup()
  const asked = useRef(false)
  const untouched = passages.length === 1 && isGuessedAt(setup)
  const { id: setupId } = setup
  const { id: passageId } = passage
  useEffect(() => {
    const file = files.get(recording.id)
    if (asked.current || !untouched || !file) return
    const isUntouched = () => {
      const { value, steps, position } = session.store.getState().history
      const own = value.setups.find((s) => s.id === setupId)
      return position === steps.length && own !== undefined && isGuessedAt(own)
    }
    const compare = async () => {
      if (!isUntouched()) return
      const setups = (await keptSetups()).filter((s) => s.fingerprint)
      const wasFound = !setupOf(session.value, setupId).isGuess
      if (wasFound && setups.length === 0) return
      const look = await lookAt({ recording, setupId }, file, session.value, 'by-itself')
      if (!look || !isUntouched()) return
      const match = recognise<Setup>(look.fingerprint, setups)
      const { steps } = session.store.getState().history
      // Whoever has gone on from what was found has a layout of their own.
      const isFresh = !wasFound || steps.length <= 1
      if (match.kind === 'unsure' || (match.kind === 'sure' && !isFresh))
        await askWhether(recording.id, match.match.id, match.likeness)
      if (match.kind === 'sure' && isFresh) {
        const words = wording.looksLike(match.match.name, match.likeness)
        const whole = await takeSetup(match.match)
        await settleResemblance(recording.id)
        return offer({
          words: whole ? wording.laidOutBy(words, whole.recipe.name) : wording.itsRegionsAreSet(words),
          button: wording.undo,
          act: () => session.undo(),
          staysMs: STAYS_MS,
        })
      }
      const sure = look.proposals.filter(isSure)
      if (wasFound || !sure.some(({ role }) => isPerson(role) || role === 'slides')) return
      const anew = session.store.getState().history.position === 0
      const found = { setupId, passageId, size: recording.video, proposals: sure }
      if (!(await acceptAllFound(session, found, { anew, byItself: true, wanted: isUntouched }))) return
      const set = setupOf(session.value, setupId).regions.filter((r) => r.isGuess)
      offer({
        words: wording.foundByItself(set.map((r) => r.name)),
        button: wording.undo,
        act: () => session.undo(),
        staysMs: STAYS_MS,
      })
    }
    return whenCalm(() => {
      asked.current = true
      void compare()
    })
  }, [untouched, recording, setupId, passageId, files, session, offer, takeSetup])
}
