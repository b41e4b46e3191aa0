import Box from '@mui/material/Box'
import type { Outlet } from '@/core/model/outlet'
import { palette } from '@/ui/theme'

/** An outlet's shape with what it covers, drawn small; `height` px high at most. */
export function OutletDiagram({
  outlet: { shape, zones },
  height,
}: {
  outlet: Pick<Outlet, 'shape' | 'zones'>
  height: number
}) {
  const scale = Math.min(height / shape.height, 144 / shape.width)
  const [w, h] = [shape.width * scale, shape.height * scale]
  return (
    <Box
      component="svg"
      aria-hidden
      viewBox={`0 0 ${w} ${h}`}
      sx={{ width: w, height: h, flex: 'none', display: 'block' }}
    >
      <rect width={w} height={h} fill={palette.mat} />
      {zones.map(({ name, rect }) => (
        <rect
          key={name}
          x={rect.x * w}
          y={rect.y * h}
          width={rect.width * w}
          height={rect.height * h}
          fill="#B3402C"
          fillOpacity="0.55"
          stroke="#FBFAF6"
          strokeWidth="1"
        />
      ))}
    </Box>
  )
}
