import type { PanelId } from '../model/ids'
import type { Arrangement } from '../model/layout'

/** The near-black mat that shows where nothing else does. */
export const DEFAULT_BACKDROP = '#16181a'

/** Two bands, one above the other; the upper one takes `share` (0..1) of the height. */
export function twoBands(upper: { id: PanelId; role: string }, lower: { id: PanelId; role: string }, share: number): Arrangement {
  const band = (panel: { id: PanelId; role: string }, weight: number) => ({
    extent: { kind: 'weight' as const, weight },
    node: { kind: 'panel' as const, ...panel, fit: 'fill' as const, zoom: 1 },
  })
  return {
    tree: { kind: 'stack', axis: 'column', gap: 0, children: [band(upper, share * 100), band(lower, (1 - share) * 100)] },
    backdrop: { kind: 'colour', colour: DEFAULT_BACKDROP },
  }
}
