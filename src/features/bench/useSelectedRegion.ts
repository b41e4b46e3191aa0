import { placePanels } from '@/core/compose/compose'
import type { RegionId } from '@/core/model/ids'
import { useEdit, useParts, useView } from './benchContext'

/** The region that is picked up, or the one that the panel picked up shows: what lights up in the Frame. */
export function useSelectedRegion(): RegionId | null {
  const edit = useEdit()
  const { passage } = useParts()
  const selection = useView((v) => v.selection)
  if (!selection) return null
  if (selection.kind === 'region') return selection.id
  const shape = edit.highlight.shapes[0]
  if (!shape) return null
  return placePanels(edit, shape, passage).find((p) => p.panel.id === selection.id)?.region?.id ?? null
}
