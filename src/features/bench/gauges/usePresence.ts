import { useMemo } from 'react'
import type { Known } from '@/core/findings/findings'
import { useHighlight, useParts } from '../benchContext'
import { boundsByPassage, boundsToHold, isAboutSomebody, presenceIn } from '../frame/along'
import { useSeenAlong } from '../frame/useAlong'

/** When somebody is not inside the regions of the setup that is worked on, as far as it has been looked along. */
export function usePresence(): Known['presence'] {
  const seen = useSeenAlong()
  // While it is being looked along, each moment makes it another; nothing is known before the end.
  const along = seen?.state === 'done' ? seen : null
  const { setup } = useParts()
  const { passages } = useHighlight()
  return useMemo(() => {
    const known = new Map<string, { outside: { fromMicros: number; toMicros: number }[]; holding: ReturnType<typeof boundsToHold> }>()
    if (!along || setup.isGuess) return known
    for (const region of setup.regions.filter(isAboutSomebody)) {
      const { presence, subjects } = presenceIn(along, region, boundsByPassage(passages, region))
      // Where hardly a face was found, that nothing moves says little about whether somebody is there.
      if (presence && subjects.by === 'face') known.set(region.id, { outside: presence.outside, holding: boundsToHold(region.bounds, presence) })
    }
    return known
  }, [along, setup, passages])
}
