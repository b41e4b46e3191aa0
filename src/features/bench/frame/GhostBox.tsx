import Box from '@mui/material/Box'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import type { Size } from '@/core/geometry/rect'
import { roleMark } from '@/ui/roleMarks'
import { fonts, textSize } from '@/ui/theme'
import { nameForRole } from '@/core/model/region'
import { wording } from './wording'

/**
 * A proposed region over the picture: a broken light line, its role with a question mark. Pressing the tab accepts
 * it.
 */
export function GhostBox({
  proposal: { rect, role, confidence, name = nameForRole(role) },
  frame,
  onAccept,
}: {
  proposal: RegionProposal
  frame: Size
  onAccept: () => void
}) {
  const percent = (value: number, of: number) => `${(value / of) * 100}%`
  return (
    <Box
      sx={{
        position: 'absolute',
        zIndex: 3,
        pointerEvents: 'none',
        left: percent(rect.x, frame.width),
        top: percent(rect.y, frame.height),
        width: percent(rect.width, frame.width),
        height: percent(rect.height, frame.height),
        outline: '1.5px dashed #fff',
        boxShadow: `inset 0 0 0 1.5px ${roleMark(role).colour}`,
      }}
    >
      <Box
        component="button"
        type="button"
        aria-label={wording.acceptTheProposedSure(name, confidence)}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={onAccept}
        sx={{
          all: 'unset',
          pointerEvents: 'auto',
          cursor: 'pointer',
          position: 'absolute',
          right: 0,
          bottom: 0,
          px: '6px',
          height: 17,
          bgcolor: '#fff',
          color: '#20261F',
          fontFamily: fonts.numbers,
          fontSize: textSize.small,
          fontWeight: 600,
          whiteSpace: 'nowrap',
          '&:focus-visible': { outline: '2px solid #20261F' },
        }}
      >
        {name}?
      </Box>
    </Box>
  )
}
