import { useEffect } from 'react'
import type { Along } from '@/shared/looks/along'
import { headsIn } from '@/shared/looks/heads'
import { quietly } from '@/diagnostics/note'
import { noteHeads } from '@/edit/records'
import { keepHeads } from '@/store/setups'
import { useBenchContext, useHighlight, useCalmParts } from '../benchContext'

/** Notes where heads were seen along the highlight, for arrangements to keep clear of; for one place on the screen. */
export function useHeads(along: Along | null): void {
  const { session } = useBenchContext()
  const { setup } = useCalmParts()
  const { passages } = useHighlight()
  useEffect(() => {
    const news = noteHeads(session, setup.id, headsIn(along, setup, passages))
    if (news.size > 0) keepHeads(setup.id, news).catch(quietly('keeping where heads were seen'))
  }, [along, session, setup, passages])
}
