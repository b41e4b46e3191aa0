import type { Brand } from '../model/brand'
import type { Outline } from '../model/outline'
import type { Arrangement } from '../model/layout'
import type { PictureMark } from '../model/pictureMark'
import { brandedText } from '../words/brandedText'
import { replacePanels } from './tree'

/** An arrangement in a brand's colours: plain grounds and borders take them, footage stays as it is. */
export function branded(arrangement: Arrangement, { palette }: Pick<Brand, 'palette'>): Arrangement {
  const { backdrop } = arrangement
  const bordered = (outline: Outline): Outline =>
    outline.border ? { ...outline, border: { ...outline.border, colour: palette.accent } } : outline
  const inColours = replacePanels(arrangement, (panel) =>
    panel.outline ? { ...panel, outline: bordered(panel.outline) } : panel,
  )
  if (backdrop.kind === 'colour') return { ...inColours, backdrop: { ...backdrop, colour: palette.ground } }
  if (backdrop.kind === 'gradient')
    return { ...inColours, backdrop: { ...backdrop, from: palette.accent, to: palette.ground } }
  return inColours
}

/** A mark in a brand's colours and its titles' font; pictures stay as they are. */
export function brandedMark(mark: PictureMark, brand: Pick<Brand, 'palette' | 'fonts'>): PictureMark {
  const { ground, ink, accent } = brand.palette
  switch (mark.kind) {
    case 'handle':
    case 'countdown':
      return { ...mark, style: brandedText(mark.style, brand, 'title') }
    case 'progress':
      return { ...mark, colour: accent, behind: ground }
    case 'level':
      return { ...mark, colour: accent }
    case 'endCard':
      return { ...mark, ground, style: { ...brandedText(mark.style, brand, 'title'), colour: ink } }
    case 'picture':
      return mark
  }
}
