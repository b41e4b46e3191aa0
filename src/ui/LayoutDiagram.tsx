import Box from '@mui/material/Box'
import { derive } from '@/core/layout/arrangementFor'
import { solve } from '@/core/layout/solve'
import type { Size } from '@/core/geometry/rect'
import type { Backdrop } from '@/core/model/backdrop'
import type { Arrangement } from '@/core/model/layout'
import { roleMark } from './roleMarks'
import { fonts, palette } from './theme'

const TALL: Size = { width: 1080, height: 1920 }

/**
 * What an arrangement looks like, drawn small: its panels with their letters, lines for words, hatching for a blurred
 * or mirrored ground; `height` px high.
 */
export function LayoutDiagram({
  arrangement,
  height,
  shape = TALL,
}: {
  arrangement: Arrangement
  height: number
  shape?: Size
}) {
  const h = 160
  const scale = h / shape.height
  const w = shape.width * scale
  const { panels, areas } = solve(derive(arrangement, shape), shape)
  return (
    <Box
      component="svg"
      aria-hidden
      viewBox={`0 0 ${w} ${h}`}
      sx={{ height, width: (height * w) / h, flex: 'none', display: 'block' }}
    >
      <rect width={w} height={h} fill={groundOf(arrangement.backdrop)} />
      {(arrangement.backdrop.kind === 'blur' || arrangement.backdrop.kind === 'mirror') && (
        <Hatching width={w} height={h} />
      )}
      {areas.map(({ kind, rect }, i) => (
        <g key={i} stroke="#F4F2EC" strokeWidth={kind === 'titleArea' ? 7 : 4} strokeLinecap="round">
          <line
            x1={(rect.x + rect.width * 0.15) * scale}
            x2={(rect.x + rect.width * 0.85) * scale}
            y1={(rect.y + rect.height / 2) * scale}
            y2={(rect.y + rect.height / 2) * scale}
          />
        </g>
      ))}
      {panels.map(({ panel, rect, insetId }) => {
        const { colour, letter, dash } = roleMark(panel.role)
        const form = panel.outline?.mask
        const shown = panel.fit === 'whole' ? landscapeIn(rect, panel.turn % 2 === 1) : rect
        const [x, y, pw, ph] = [
          shown.x * scale + 1,
          shown.y * scale + 1,
          Math.max(2, shown.width * scale - 2),
          Math.max(2, shown.height * scale - 2),
        ]
        const round = form?.kind === 'ellipse' ? { rx: pw / 2, ry: ph / 2 } : { rx: form?.kind === 'rounded' ? 5 : 0 }
        const size = Math.min(24, ph * 0.6, pw * 0.6)
        return (
          <g key={panel.id}>
            <rect
              x={x}
              y={y}
              width={pw}
              height={ph}
              {...round}
              fill={insetId ? '#FFFFFF' : '#FBFAF6'}
              fillOpacity="0.94"
              stroke={colour}
              strokeWidth="2.5"
              strokeDasharray={dash}
            />
            <text
              transform={`translate(${x + pw / 2} ${y + ph / 2}) rotate(${panel.turn * 90})`}
              fill={colour}
              fontFamily={fonts.numbers}
              fontWeight="700"
              fontSize={size}
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

function groundOf(backdrop: Backdrop): string {
  if (backdrop.kind === 'colour') return backdrop.colour
  return backdrop.kind === 'gradient' ? backdrop.from : palette.mat
}

/** What a landscape picture shown whole takes of its panel. */
function landscapeIn(rect: { x: number; y: number; width: number; height: number }, turned: boolean) {
  const proportion = turned ? 9 / 16 : 16 / 9
  const width = Math.min(rect.width, rect.height * proportion)
  const height = Math.min(rect.height, rect.width / proportion)
  return { x: rect.x + (rect.width - width) / 2, y: rect.y + (rect.height - height) / 2, width, height }
}

function Hatching({ width, height }: { width: number; height: number }) {
  const lines = Array.from({ length: Math.ceil((width + height) / 9) }, (_, i) => i * 9)
  return (
    <g stroke="#7d827b" strokeWidth="1.5" opacity="0.7">
      {lines.map((at) => (
        <line key={at} x1={at} y1={0} x2={at - height} y2={height} />
      ))}
    </g>
  )
}
