import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { Strike } from '@/core/model/passage'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { STRIKE_HEIGHT } from './sheetLayout'
import { wording } from './wording'

/** Slanted lines over what is struck out, or would be. */
export const HATCHED = (colour: string) => `repeating-linear-gradient(135deg, ${colour} 0 1px, transparent 1px 6px)`

/** What was struck out, folded to a strip with the way back. */
export function StrikeStrip({ strike, onRestore }: { strike: Strike; onRestore: () => void }) {
  const { fromMicros, toMicros } = strike
  return (
    <Box
      sx={{
        height: STRIKE_HEIGHT,
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 2.5,
        fontFamily: fonts.numbers,
        fontSize: textSize.small,
        color: palette.inkSoft,
        background: HATCHED('#BDB8AA'),
        boxShadow: `inset 0 -1px 0 ${palette.line}`,
      }}
    >
      <Box component="span" sx={{ bgcolor: palette.sheet, px: 1, textDecoration: 'line-through' }}>
        {formatTime(fromMicros, 2)}–{formatTime(toMicros, 2)}
      </Box>
      <Box component="span" sx={{ bgcolor: palette.sheet, px: 1 }}>
        {wording.sOut(((toMicros - fromMicros) / MICROS_PER_SECOND).toFixed(2))}
      </Box>
      <Box sx={{ flex: 1 }} />
      <Button
        variant="text"
        aria-label={wording.restoreTo(formatTime(fromMicros, 2), formatTime(toMicros, 2))}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={onRestore}
        sx={{ minHeight: 18, py: 0, px: 1.5, fontSize: textSize.small, bgcolor: palette.sheet }}
      >
        {wording.restore}
      </Button>
    </Box>
  )
}
