import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { inOrder, suitEach, type SuitedLayout } from '@/core/compose/suitedLayouts'
import { arrangeFor, STARTING_LAYOUTS } from '@/core/layout/startingLayouts'
import { newId, type InsetId } from '@/core/model/ids'
import { idsInUse } from '@/edit/layouts'
import { inTurns } from '@/ui/inTurns'
import { useCalmEdit, useCalmParts } from '../benchContext'

/**
 * The starting layouts for what the passage shows, in the order in which they suit it; until that is known, in the
 * order in which they are mostly wanted. `hold`: from now on none changes places, since somebody points at them.
 */
export function useSuited(): { suited: readonly SuitedLayout[]; hold: () => void } {
  const edit = useCalmEdit()
  const { passage, setup, layout } = useCalmParts()
  const ids = useMemo(() => ({ panel: idsInUse(layout), inset: () => newId<InsetId>() }), [layout])
  const usual = useMemo(() => {
    const roles = setup.regions.map((r) => r.role)
    return STARTING_LAYOUTS.map((starting): SuitedLayout => ({
      starting,
      arrangement: arrangeFor(starting, roles, ids.panel, ids.inset),
      faults: [],
      cost: 0,
    }))
  }, [setup, ids])
  const held = useRef(false)
  const [suited, setSuited] = useState<readonly SuitedLayout[] | null>(null)
  useEffect(() => {
    let left = false
    const look = async () => {
      const found = await inTurns(suitEach(edit, passage, ids), () => left)
      // They are looked at in the order in which they are mostly wanted.
      if (found) setSuited(held.current ? found : inOrder(found))
    }
    void look()
    return () => {
      left = true
    }
  }, [edit, passage, ids])
  const hold = useCallback(() => {
    held.current = true
  }, [])
  return { suited: suited ?? usual, hold }
}
