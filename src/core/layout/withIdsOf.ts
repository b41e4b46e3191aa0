import type { PanelId } from '../model/ids'
import type { Arrangement, Layout } from '../model/layout'
import { panelsOf, replacePanels } from './tree'

/**
 * A kept layout's arrangements with the panel ids of the highlight that takes them: `idFor` names the `n`th panel of
 * each role.
 */
export function withIdsOf(
  { arrangement, perShape }: Pick<Layout, 'arrangement' | 'perShape'>,
  idFor: (role: string, n: number) => PanelId,
): Pick<Layout, 'arrangement' | 'perShape'> {
  const ids = new Map<PanelId, PanelId>()
  const seen = new Map<string, number>()
  for (const { id, role } of panelsOf(arrangement)) {
    const n = seen.get(role) ?? 0
    seen.set(role, n + 1)
    ids.set(id, idFor(role, n))
  }
  const renamed = (a: Arrangement) => replacePanels(a, (p) => ({ ...p, id: ids.get(p.id) ?? p.id }))
  return {
    arrangement: renamed(arrangement),
    perShape: Object.fromEntries(Object.entries(perShape).map(([shape, a]) => [shape, renamed(a)])),
  }
}
