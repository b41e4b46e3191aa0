import Box from '@mui/material/Box'
import type { Region } from '@/core/model/region'
import { roleMark } from './roleMarks'
import { fonts, palette } from './theme'

/** Where a setup's regions are, drawn small: their outlines and letters in a 16:9 frame, `width` px wide. */
export function SetupDiagram({ regions, width }: { regions: readonly Region[]; width: number }) {
  const [w, h] = [160, 90]
  // The smallest lies on top, as in the Frame.
  const ordered = [...regions].sort((a, b) => b.bounds.width * b.bounds.height - a.bounds.width * a.bounds.height)
  return (
    <Box
      component="svg"
      aria-hidden
      viewBox={`0 0 ${w} ${h}`}
      sx={{ width, height: (width * h) / w, flex: 'none', display: 'block', bgcolor: palette.mat }}
    >
      {ordered.map(({ id, role, bounds }) => {
        const { colour, letter, dash } = roleMark(role)
        return (
          <g key={id}>
            <rect
              x={bounds.x * w + 1}
              y={bounds.y * h + 1}
              width={Math.max(1, bounds.width * w - 2)}
              height={Math.max(1, bounds.height * h - 2)}
              fill="#FBFAF6"
              fillOpacity="0.92"
              stroke={colour}
              strokeWidth="2.5"
              strokeDasharray={dash}
            />
            <text
              x={(bounds.x + bounds.width / 2) * w}
              y={(bounds.y + bounds.height / 2) * h}
              fill={colour}
              fontFamily={fonts.numbers}
              fontWeight="700"
              fontSize={Math.min(20, bounds.height * h * 0.7)}
              textAnchor="middle"
              dominantBaseline="central"
            >
              {letter}
            </text>
          </g>
        )
      })}
    </Box>
  )
}
