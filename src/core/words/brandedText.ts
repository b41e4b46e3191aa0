import type { Brand } from '../model/brand'
import type { TextStyle } from '../model/textStyle'

/**
 * A style in a brand's font and colours: what stands on a block takes ink on ground, what stands out takes the
 * accent; letters over the picture keep the colour that can be read there.
 */
export function brandedText(
  style: TextStyle,
  { palette, fonts }: Pick<Brand, 'palette' | 'fonts'>,
  use: 'title' | 'captions',
): TextStyle {
  const { block, emphasis } = style
  return {
    ...style,
    font: fonts[use],
    ...(block && { colour: palette.ink, block: { ...block, colour: palette.ground } }),
    emphasis: emphasis.kind === 'none' ? emphasis : { ...emphasis, colour: palette.accent },
  }
}
