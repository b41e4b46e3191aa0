import Box from '@mui/material/Box'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Role } from '@/core/model/region'
import { roleMark } from '@/ui/roleMarks'

/** What a panel really shows of its region, drawn thin and broken: no handles, it follows from region and panel. */
export function CropOutline({ crop, frame, role }: { crop: Rect; frame: Size; role: Role }) {
  const percent = (value: number, of: number) => `${(value / of) * 100}%`
  return (
    <Box
      aria-hidden
      style={{
        left: percent(crop.x, frame.width),
        top: percent(crop.y, frame.height),
        width: percent(crop.width, frame.width),
        height: percent(crop.height, frame.height),
      }}
      sx={{
        position: 'absolute',
        pointerEvents: 'none',
        outline: `1px dashed ${roleMark(role).colour}`,
        outlineOffset: -1,
        opacity: 0.9,
      }}
    />
  )
}
