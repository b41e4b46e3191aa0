import { useStore } from 'zustand'
import { placePanels } from '@/core/compose/placePanels'
import type { RegionId } from '@/core/model/ids'
import { partsOf, useBenchContext, useView } from './benchContext'

/** The region that is picked up, or the one that the panel picked up shows: what lights up in the Frame. */
export function useSelectedRegion(): RegionId | null {
  const selection = useView((v) => v.selection)
  const passageId = useView((v) => v.passageId)
  return useStore(useBenchContext().session.store, ({ history: { value } }) => {
    if (!selection) return null
    if (selection.kind === 'region') return selection.id
    if (selection.kind !== 'panel') return null
    const shape = value.highlight.shapes[0]
    return (
      (shape &&
        placePanels(value, shape, partsOf(value, passageId).passage).find((p) => p.panel.id === selection.id)?.region
          ?.id) ??
      null
    )
  })
}
