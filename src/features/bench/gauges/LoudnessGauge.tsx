'use client'

import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { useMemo, useState } from 'react'
import { Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { MOST_PEAK_DB, TARGET_LUFS } from '@/core/findings/soundFindings'
import type { Loudness } from '@/core/sound/loudness'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { Ticket } from '@/ui/Ticket'
import { fonts, palette } from '@/ui/theme'
import { useBenchContext, useHighlight, useView } from '../benchContext'
import { holdPeaks } from './remedies'

/** Quieter than this is drawn at the bottom. */
const FLOOR_LUFS = -48
/** More points than a chart has pixels only cost time. */
const MOST_POINTS = 600
/** Momentary loudness is of the 0.4 s before, and there is one for each tenth of a second. */
const FIRST_SECONDS = 0.4
const STEP_SECONDS = 0.1

const figure = (lufs: number) => (lufs <= -70 ? 'silent' : `${lufs.toFixed(1)} LUFS`)

/** How loud it is; pressed, how loud over time, before and after what was changed last. */
export function LoudnessGauge() {
  const loudness = useView((v) => v.looked?.loudness ?? null)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  if (!loudness) return null
  return (
    <>
      <ButtonBase aria-haspopup="dialog" aria-label={`Loudness: ${figure(loudness.lufs)}`} onClick={(e) => setAnchor(e.currentTarget)} sx={{ pl: 3, pr: 1, py: 1, borderLeft: 1, borderColor: 'divider', display: 'block', textAlign: 'left', font: 'inherit', whiteSpace: 'nowrap', '&:hover': { bgcolor: palette.leafTint }, '&:focus-visible': { outline: `2px solid ${palette.leaf}` } }}>
        <Box sx={{ fontFamily: fonts.numbers, fontSize: 12.5, fontWeight: 700, color: palette.leaf }}>{figure(loudness.lufs)}</Box>
        <Box sx={{ fontSize: 11, color: palette.inkSoft }}>loudness</Box>
      </ButtonBase>
      {anchor && (
        <Ticket label="Loudness" anchor={anchor} onClose={() => setAnchor(null)} side="center" width={600} gap={2}>
          <OverTime />
        </Ticket>
      )}
    </>
  )
}

interface Point {
  seconds: number
  now?: number
  before?: number
}

function pointsOf(now: Loudness, before: Loudness | null): Point[] {
  const length = Math.max(now.momentary.length, before?.momentary.length ?? 0)
  const every = Math.max(1, Math.ceil(length / MOST_POINTS))
  const at = (of: Loudness | null, i: number) => (of && i < of.momentary.length ? Math.max(FLOOR_LUFS, ...of.momentary.slice(i, i + every)) : undefined)
  return Array.from({ length: Math.ceil(length / every) }, (_, n): Point => {
    const [own, old] = [at(now, n * every), at(before, n * every)]
    return { seconds: FIRST_SECONDS + n * every * STEP_SECONDS, ...(own !== undefined && { now: own }), ...(old !== undefined && { before: old }) }
  })
}

function OverTime() {
  const { session, player } = useBenchContext()
  const now = useView((v) => v.looked?.loudness ?? null)
  const before = useView((v) => v.looked?.loudnessBefore ?? null)
  const outlet = useView((v) => v.outlet)
  const { limitDb } = useHighlight()
  const points = useMemo(() => (now ? pointsOf(now, before) : []), [now, before])
  if (!now) return null
  const [target, mostDb] = [outlet?.targetLufs ?? TARGET_LUFS, outlet?.mostPeakDb ?? MOST_PEAK_DB]
  return (
    <>
      <Box component="dl" sx={{ m: 0, display: 'flex', justifyContent: 'space-between', gap: 3, fontSize: 12, whiteSpace: 'nowrap', color: palette.inkSoft, '& dd': { m: 0, fontFamily: fonts.numbers, fontWeight: 700, color: palette.ink } }}>
        <div>
          <dt>now</dt>
          <dd>{figure(now.lufs)}</dd>
        </div>
        <div>
          <dt>true peak</dt>
          <dd>{now.peakDb.toFixed(1)} dBTP</dd>
        </div>
        {before && (
          <div>
            <dt>before</dt>
            <dd>
              {figure(before.lufs)}, {before.peakDb.toFixed(1)} dBTP
            </dd>
          </div>
        )}
        <div>
          <dt>to be</dt>
          <dd>
            {target} LUFS, {mostDb} dBTP
          </dd>
        </div>
      </Box>
      <Box role="img" aria-label={`Loudness over time, ${figure(now.lufs)} in all${before ? `, ${figure(before.lufs)} before` : ''}`} sx={{ height: 190 }}>
        <ResponsiveContainer width="100%" height="100%">
          <LineChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: 0 }} onClick={({ activeLabel }) => activeLabel !== undefined && player.seek(Math.round(Number(activeLabel) * MICROS_PER_SECOND))}>
            <XAxis dataKey="seconds" type="number" domain={[0, 'dataMax']} tickFormatter={(s: number) => formatTime(s * MICROS_PER_SECOND, 0)} tickLine={false} axisLine={{ stroke: palette.line }} tick={{ fontSize: 11, fill: palette.inkSoft, fontFamily: fonts.numbers }} />
            <YAxis domain={[FLOOR_LUFS, 0]} ticks={[-40, -30, -20, -10, 0]} width={34} tickLine={false} axisLine={false} tick={{ fontSize: 11, fill: palette.inkSoft, fontFamily: fonts.numbers }} />
            <Tooltip isAnimationActive={false} formatter={(value) => `${Number(value).toFixed(1)} LUFS`} labelFormatter={(s) => formatTime(Number(s) * MICROS_PER_SECOND)} contentStyle={{ fontSize: 12, padding: '4px 8px', background: palette.sheet, border: `1px solid ${palette.line}` }} />
            <ReferenceLine y={target} stroke={palette.straw} strokeDasharray="4 3" />
            {before && <Line dataKey="before" name="before" type="linear" dot={false} isAnimationActive={false} stroke={palette.slate} strokeWidth={1} strokeDasharray="2 2" />}
            <Line dataKey="now" name="now" type="linear" dot={false} isAnimationActive={false} stroke={palette.leaf} strokeWidth={1.6} />
          </LineChart>
        </ResponsiveContainer>
      </Box>
      <FormControlLabel control={<Switch size="small" checked={limitDb !== null} onChange={(_, on) => holdPeaks(session, on ? mostDb : null)} />} label={`Hold peaks under ${limitDb ?? mostDb} dBTP`} sx={{ ml: 0, gap: 1 }} slotProps={{ typography: { sx: { fontSize: 13 } } }} />
    </>
  )
}
