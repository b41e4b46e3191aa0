'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { Presence } from '@/core/detect/regions/presence'
import type { Subjects } from '@/core/detect/regions/subjects'
import { scaleRect, type Rect, type Size } from '@/core/geometry/rect'
import type { PassageId } from '@/core/model/ids'
import type { Region } from '@/core/model/region'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { placeRegion } from '@/edit/regions'
import { useBenchContext, usePassage } from '../benchContext'
import { boundsToHold } from '@/shared/looks/along'
import { wording } from './wording'

/** More stretches than this are only counted. */
const MAX_LISTED = 4

const WORDS = { face: wording.theFace, movement: wording.whoeverMoves }

/** How much of the time somebody is inside, when not, and what would hold them; the times lead there. */
export function PresenceFacts({
  region,
  bounds,
  frame,
  presence,
  by,
}: {
  region: Region
  bounds: ReadonlyMap<PassageId, Rect>
  frame: Size
  presence: Presence
  by: Subjects['by']
}) {
  const { session, player } = useBenchContext()
  const { share, outside } = presence
  const { passage } = usePassage()
  const here = bounds.get(passage.id) ?? region.bounds
  const held = boundsToHold(here, presence)
  const inPixels = held && scaleRect(held, frame.width, frame.height)
  return (
    <Box
      role="note"
      aria-label={wording.presenceIn(region.name)}
      sx={{
        ml: '86px',
        mt: 0.5,
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 2,
        fontSize: textSize.small,
        color: palette.inkSoft,
        '& button': { fontSize: textSize.small, minHeight: 22, py: 0 },
      }}
    >
      <Box
        component="span"
        sx={{ fontFamily: fonts.numbers, color: share < 1 ? palette.haw : palette.ink, fontWeight: 600 }}
      >
        {Math.floor(share * 100)} %
      </Box>
      <span>
        {wording.ofTheTimeIsInside(WORDS[by])}
        {outside.length > 0 && wording.notAt}
      </span>
      {outside.slice(0, MAX_LISTED).map(({ fromMicros, toMicros }) => (
        <Button
          key={fromMicros}
          variant="text"
          onClick={() => player.seek(fromMicros)}
          sx={{ fontFamily: fonts.numbers, px: 1, minWidth: 0 }}
        >
          {formatTime(fromMicros, 1)}–{formatTime(toMicros, 1)}
        </Button>
      ))}
      {outside.length > MAX_LISTED && <span>{wording.andMore(outside.length, MAX_LISTED)}</span>}
      {inPixels && (
        <Button
          disabled={region.locked}
          title={wording.toTheLeastThatHolds(Math.round(inPixels.width), Math.round(inPixels.height), WORDS[by])}
          onClick={() =>
            placeRegion(session, passage, frame, region, inPixels, wording.grow(region.name), crypto.randomUUID())
          }
        >
          {wording.growToHold}
        </Button>
      )}
    </Box>
  )
}
