import type { HighlightId, LayoutId } from '@/core/model/ids'
import { database } from './database'

export interface LayoutUse {
  highlightId: HighlightId
  name: string
}

/** Which highlights are laid out by each kept layout. */
export async function layoutUses(): Promise<Map<LayoutId, LayoutUse[]>> {
  const db = database()
  const uses = new Map<LayoutId, LayoutUse[]>()
  const copies = await db.layouts.filter((l) => l.ownedBy !== null && Boolean(l.basedOn)).toArray()
  const highlights = await db.highlights.bulkGet(copies.map((l) => l.ownedBy as HighlightId))
  copies.forEach(({ basedOn, id }, i) => {
    const highlight = highlights[i]
    if (!basedOn || !highlight || highlight.deletedAt || !highlight.passages.some((p) => p.layoutId === id)) return
    uses.set(basedOn, [...(uses.get(basedOn) ?? []), { highlightId: highlight.id, name: highlight.name }])
  })
  return uses
}
