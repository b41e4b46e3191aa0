'use client'

import Box from '@mui/material/Box'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { useMemo } from 'react'
import { Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { MAX_PEAK_DB, TARGET_LUFS } from '@/core/findings/soundFindings'
import type { Loudness } from '@/core/sound/loudness'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { holdPeaks } from '@/edit/sound'
import { useBenchContext, useHighlight, useView } from '../benchContext'
import { loudnessFigure } from '@/shared/findingWords'
import { wording } from './wording'

/** Quieter than this is drawn at the bottom. */
const FLOOR_LUFS = -48
/** More points than a chart has pixels only cost time. */
const MAX_POINTS = 600
/** Momentary loudness is of the 0.4 s before, and there is one for each tenth of a second. */
const FIRST_SECONDS = 0.4
const STEP_SECONDS = 0.1

interface Point {
  seconds: number
  now?: number
  before?: number
}

function pointsOf(now: Loudness, before: Loudness | null): Point[] {
  const length = Math.max(now.momentary.length, before?.momentary.length ?? 0)
  const every = Math.max(1, Math.ceil(length / MAX_POINTS))
  const at = (of: Loudness | null, i: number) =>
    of && i < of.momentary.length ? Math.max(FLOOR_LUFS, ...of.momentary.slice(i, i + every)) : undefined
  return Array.from({ length: Math.ceil(length / every) }, (_, n): Point => {
    const [own, old] = [at(now, n * every), at(before, n * every)]
    return {
      seconds: FIRST_SECONDS + n * every * STEP_SECONDS,
      ...(own !== undefined && { now: own }),
      ...(old !== undefined && { before: old }),
    }
  })
}

/** Loudness over time, before and after what was changed last; a click goes there. */
export default function LoudnessOverTime() {
  const { session, player } = useBenchContext()
  const now = useView((v) => v.looked?.loudness ?? null)
  const before = useView((v) => v.looked?.loudnessBefore ?? null)
  const outlet = useView((v) => v.outlet)
  const { limitDb } = useHighlight()
  const points = useMemo(() => (now ? pointsOf(now, before) : []), [now, before])
  if (!now) return null
  const [target, mostDb] = [outlet?.targetLufs ?? TARGET_LUFS, outlet?.mostPeakDb ?? MAX_PEAK_DB]
  return (
    <>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: 'flex',
          justifyContent: 'space-between',
          gap: 3,
          fontSize: textSize.note,
          whiteSpace: 'nowrap',
          color: palette.inkSoft,
          '& dd': { m: 0, fontFamily: fonts.numbers, fontWeight: 700, color: palette.ink },
        }}
      >
        <div>
          <dt>{wording.now}</dt>
          <dd>{loudnessFigure(now.lufs)}</dd>
        </div>
        <div>
          <dt>{wording.truePeak}</dt>
          <dd>{wording.dBTP(now.peakDb.toFixed(1))}</dd>
        </div>
        {before && (
          <div>
            <dt>{wording.before}</dt>
            <dd>{wording.dBTPOfLoudnessFigure(loudnessFigure(before.lufs), before.peakDb.toFixed(1))}</dd>
          </div>
        )}
        <div>
          <dt>{wording.toBe}</dt>
          <dd>{wording.lufsDbtp(target, mostDb)}</dd>
        </div>
      </Box>
      <Box
        role="img"
        aria-label={`Loudness over time, ${loudnessFigure(now.lufs)} in all${before ? wording.beforeOfLoudnessFigure(loudnessFigure(before.lufs)) : ''}`}
        sx={{ height: 190 }}
      >
        <ResponsiveContainer width="100%" height="100%">
          <LineChart
            data={points}
            margin={{ top: 8, right: 12, bottom: 0, left: 0 }}
            onClick={({ activeLabel }) =>
              activeLabel !== undefined && player.seek(Math.round(Number(activeLabel) * MICROS_PER_SECOND))
            }
          >
            <XAxis
              dataKey="seconds"
              type="number"
              domain={[0, 'dataMax']}
              tickFormatter={(s: number) => formatTime(s * MICROS_PER_SECOND, 0)}
              tickLine={false}
              axisLine={{ stroke: palette.line }}
              tick={{ fontSize: textSize.small, fill: palette.inkSoft, fontFamily: fonts.numbers }}
            />
            <YAxis
              domain={[FLOOR_LUFS, 0]}
              ticks={[-40, -30, -20, -10, 0]}
              width={34}
              tickLine={false}
              axisLine={false}
              tick={{ fontSize: textSize.small, fill: palette.inkSoft, fontFamily: fonts.numbers }}
            />
            <Tooltip
              isAnimationActive={false}
              formatter={(value) => `${Number(value).toFixed(1)} LUFS`}
              labelFormatter={(s) => formatTime(Number(s) * MICROS_PER_SECOND)}
              contentStyle={{
                fontSize: textSize.note,
                padding: '4px 8px',
                background: palette.sheet,
                border: `1px solid ${palette.line}`,
              }}
            />
            <ReferenceLine y={target} stroke={palette.straw} strokeDasharray="4 3" />
            {before && (
              <Line
                dataKey="before"
                name="before"
                type="linear"
                dot={false}
                isAnimationActive={false}
                stroke={palette.slate}
                strokeWidth={1}
                strokeDasharray="2 2"
              />
            )}
            <Line
              dataKey="now"
              name="now"
              type="linear"
              dot={false}
              isAnimationActive={false}
              stroke={palette.leaf}
              strokeWidth={1.6}
            />
          </LineChart>
        </ResponsiveContainer>
      </Box>
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={limitDb !== null}
            onChange={(_, on) => holdPeaks(session, { limitDb: on ? mostDb : null })}
          />
        }
        label={wording.holdPeaksUnderDbtp(limitDb, mostDb)}
        sx={{ ml: 0, gap: 1 }}
        slotProps={{ typography: { sx: { fontSize: textSize.body } } }}
      />
    </>
  )
}
