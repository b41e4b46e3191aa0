import { useEffect } from 'react'
import type { Along } from '@/shared/looks/along'
import { headsIn } from '@/shared/looks/heads'
import { noteHeads } from '@/edit/records'
import { useBenchContext, useHighlight, useParts } from '../benchContext'

/** Notes where heads were seen along the highlight, for arrangements to keep clear of; for one place on the screen. */
export function useHeads(along: Along | null): void {
  const { session } = useBenchContext()
  const { setup } = useParts()
  const { passages } = useHighlight()
  useEffect(() => noteHeads(session, setup.id, headsIn(along, setup, passages)), [along, session, setup, passages])
}
