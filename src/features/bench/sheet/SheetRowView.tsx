import Box from '@mui/material/Box'
import { memo } from 'react'
import { toDecibels, type Level } from '@/core/sound/levels'
import { fonts, palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { LEVELS_PER_ROW, type SheetRow } from './useSheetRows'

/** Levels below this draw as nothing. */
const FLOOR_DB = -54

/** Time, picture, level, words. */
export const SHEET_COLUMNS = '46px 84px minmax(32px, 0.5fr) minmax(0, 2fr)'

/**
 * One row of the Sheet: time, picture, level, and room for the words said then. A row cut short at its passage's end
 * is lower than the others.
 */
export const SheetRowView = memo(function SheetRowView({
  time,
  row,
  height,
  beyond,
}: {
  time: string
  row: SheetRow | undefined
  height: number
  beyond: boolean
}) {
  const url = useBlobUrl(row?.picture)
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: SHEET_COLUMNS,
        columnGap: 2,
        alignItems: 'center',
        height,
        px: 2.5,
        overflow: 'hidden',
        boxShadow: `inset 0 -1px 0 ${palette.line}`,
        opacity: beyond ? 0.45 : 1,
      }}
    >
      <Box
        sx={{
          fontFamily: fonts.numbers,
          fontSize: textSize.note,
          color: palette.inkSoft,
          alignSelf: 'start',
          pt: height > 20 ? 1 : 0,
          lineHeight: height > 20 ? undefined : `${height}px`,
        }}
      >
        {height > 11 && time}
      </Box>
      <Box
        sx={{
          height: Math.max(1, height - 4),
          bgcolor: palette.mat,
          overflow: 'hidden',
          display: 'grid',
          placeItems: 'center',
        }}
      >
        {url && (
          <Box
            component="img"
            src={url}
            alt=""
            draggable={false}
            sx={{ maxWidth: '100%', height: 52, display: 'block' }}
          />
        )}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateRows: `repeat(${LEVELS_PER_ROW}, 1fr)`,
          height: Math.max(1, height - 6),
          alignItems: 'center',
          justifyItems: 'center',
        }}
      >
        {height > 24 && Array.from({ length: LEVELS_PER_ROW }, (_, i) => <LevelBar key={i} level={row?.levels?.[i]} />)}
      </Box>
    </Box>
  )
})

function LevelBar({ level }: { level: Level | undefined }) {
  if (!level) return <Box sx={{ width: 2, height: 2, bgcolor: palette.line }} />
  const db = toDecibels(level.rms)
  // Squared, so that speech stands out from a room's noise.
  const width = Math.max(0, Math.min(1, 1 - db / FLOOR_DB)) ** 2 * 1.4
  const peak = toDecibels(level.peak)
  const colour = colourOf(peak, db)
  return (
    <Box sx={{ width: `clamp(2px, ${width * 100}%, 100%)`, height: '3px', bgcolor: colour, borderRadius: '1px' }} />
  )
}

function colourOf(peakDb: number, db: number): string {
  if (peakDb > -1) return palette.haw
  return db > -20 ? palette.leaf : '#8FA58E'
}
