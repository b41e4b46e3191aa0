import type { PanelId } from '../model/ids'
import { DEFAULT_BACKDROP } from '../model/backdrop'
import type { Arrangement } from '../model/layout'
import { newPanel } from '../model/panel'

/** Two bands, one above the other; the upper one takes `share` (0..1) of the height. */
export function twoBands(
  upper: { id: PanelId; role: string },
  lower: { id: PanelId; role: string },
  share: number,
): Arrangement {
  const band = (panel: { id: PanelId; role: string }, weight: number) => ({
    extent: { kind: 'weight' as const, weight },
    node: newPanel(panel.id, panel.role),
  })
  return {
    tree: {
      kind: 'stack',
      axis: 'column',
      gap: 0,
      children: [band(upper, share * 100), band(lower, (1 - share) * 100)],
    },
    insets: [],
    backdrop: DEFAULT_BACKDROP,
  }
}
