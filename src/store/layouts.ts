import { panelsOf, replacePanels } from '@/core/layout/tree'
import type { HighlightId, LayoutId, PanelId } from '@/core/model/ids'
import type { Arrangement, Layout } from '@/core/model/layout'
import { database } from './database'

/** A kept layout's arrangements with the panel ids of the highlight that takes them: `idFor` names the `n`th panel of each role. */
export function withIdsOf({ arrangement, perShape }: Pick<Layout, 'arrangement' | 'perShape'>, idFor: (role: string, n: number) => PanelId): Pick<Layout, 'arrangement' | 'perShape'> {
  const ids = new Map<PanelId, PanelId>()
  const seen = new Map<string, number>()
  for (const { id, role } of panelsOf(arrangement)) {
    const n = seen.get(role) ?? 0
    seen.set(role, n + 1)
    ids.set(id, idFor(role, n))
  }
  const renamed = (a: Arrangement) => replacePanels(a, (p) => ({ ...p, id: ids.get(p.id) ?? p.id }))
  return { arrangement: renamed(arrangement), perShape: Object.fromEntries(Object.entries(perShape).map(([shape, a]) => [shape, renamed(a)])) }
}

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
