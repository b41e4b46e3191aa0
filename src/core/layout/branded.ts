import type { Brand } from '../model/brand'
import type { Outline } from '../model/outline'
import type { Arrangement } from '../model/layout'
import { replacePanels } from './tree'

/** An arrangement in a brand's colours: plain grounds and borders take them, footage stays as it is. */
export function branded(arrangement: Arrangement, { palette }: Pick<Brand, 'palette'>): Arrangement {
  const { backdrop } = arrangement
  const bordered = (outline: Outline): Outline => (outline.border ? { ...outline, border: { ...outline.border, colour: palette.accent } } : outline)
  const inColours = replacePanels(arrangement, (panel) => (panel.outline ? { ...panel, outline: bordered(panel.outline) } : panel))
  if (backdrop.kind === 'colour') return { ...inColours, backdrop: { ...backdrop, colour: palette.ground } }
  if (backdrop.kind === 'gradient') return { ...inColours, backdrop: { ...backdrop, from: palette.accent, to: palette.ground } }
  return inColours
}
