import { useMemo } from 'react'
import type { Measurements } from '@/core/findings/findings'
import { useHighlight, useCalmParts } from '../benchContext'
import { useSeenAlong } from '../frame/useAlong'
import { presencesIn } from '@/shared/looks/presences'

/** When somebody is not inside the regions of the setup that is worked on, as far as it has been looked along. */
export function usePresence(): Measurements['presence'] {
  const seen = useSeenAlong()
  // While it is being looked along, each moment makes it another; nothing is known before the end.
  const along = seen?.state === 'done' ? seen : null
  const { setup } = useCalmParts()
  const { passages } = useHighlight()
  return useMemo(() => presencesIn(along, setup, passages), [along, setup, passages])
}
