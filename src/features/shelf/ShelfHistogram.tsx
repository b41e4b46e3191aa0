'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { Bar, BarChart, Cell, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { fonts, palette, textSize } from '@/ui/theme'
import { spansOf, type ShelfSpan, type SpanKind } from './spans'
import type { Shelf } from './useShelf'
import { wording } from './wording'

export interface ShelfFilter {
  kind: SpanKind
  /** The day or month that is shown; null shows all. */
  key: string | null
}

/** Recordings and what was cut from them, by day or month; a bar that is pressed shows its time alone. */
export function ShelfHistogram({
  shelf,
  filter,
  onFilter,
}: {
  shelf: Shelf
  filter: ShelfFilter
  onFilter: (filter: ShelfFilter) => void
}) {
  const spans = spansOf(shelf.days, filter.kind)
  const choose = (key: string | null) => onFilter({ ...filter, key: key === filter.key ? null : key })
  const shade = (own: string, span: ShelfSpan) => (filter.key === null || filter.key === span.key ? own : palette.line)
  return (
    <Box
      component="section"
      aria-label={wording.recordingsAndHighlightsOverTime}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) auto',
        gap: 4,
        alignItems: 'center',
        px: 4.5,
        py: 1.5,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ height: 72, '& .recharts-bar-rectangle': { cursor: 'pointer' } }}>
        <ResponsiveContainer width="100%" height="100%">
          <BarChart
            data={spans}
            margin={{ top: 4, right: 14, bottom: 0, left: 14 }}
            barGap={1}
            onClick={({ activeLabel }) => choose(spans.find((s) => s.name === activeLabel)?.key ?? null)}
          >
            <XAxis
              dataKey="name"
              tickLine={false}
              axisLine={{ stroke: palette.line }}
              tick={{ fontSize: textSize.small, fill: palette.inkSoft, fontFamily: fonts.numbers }}
              height={18}
              interval="equidistantPreserveStart"
              minTickGap={14}
            />
            <YAxis hide allowDecimals={false} />
            <Tooltip
              cursor={{ fill: palette.leafTint }}
              isAnimationActive={false}
              contentStyle={{
                fontSize: textSize.note,
                padding: '4px 8px',
                background: palette.sheet,
                border: `1px solid ${palette.line}`,
              }}
            />
            <Bar dataKey="recordings" name="recordings" isAnimationActive={false} maxBarSize={18}>
              {spans.map((span) => (
                <Cell key={span.key} fill={shade(palette.slate, span)} />
              ))}
            </Bar>
            <Bar dataKey="highlights" name="highlights" isAnimationActive={false} maxBarSize={18}>
              {spans.map((span) => (
                <Cell key={span.key} fill={shade(palette.leaf, span)} />
              ))}
            </Bar>
          </BarChart>
        </ResponsiveContainer>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'auto auto', gap: 1.5, alignItems: 'center' }}>
        <Box sx={{ gridColumn: '1 / -1', display: 'flex', gap: 3, fontSize: textSize.note, color: palette.inkSoft }}>
          <Legend colour={palette.slate} name="recordings" />
          <Legend colour={palette.leaf} name="highlights cut from them" />
        </Box>
        <Button onClick={() => onFilter({ kind: filter.kind === 'day' ? 'month' : 'day', key: null })}>
          {wording.by(filter.kind)}
        </Button>
        <Select
          value={filter.key ?? ''}
          displayEmpty
          onChange={(e) => onFilter({ ...filter, key: e.target.value || null })}
          inputProps={{ 'aria-label': wording.showRecordingsOf }}
          sx={{ minWidth: 130 }}
        >
          <MenuItem value="">{filter.kind === 'day' ? wording.allDays : wording.allMonths}</MenuItem>
          {spans
            .filter((s) => s.recordings > 0)
            .reverse()
            .map((s) => (
              <MenuItem key={s.key} value={s.key}>
                {s.name}: {s.recordings}
              </MenuItem>
            ))}
        </Select>
      </Box>
    </Box>
  )
}

function Legend({ colour, name }: { colour: string; name: string }) {
  return (
    <Box component="span" sx={{ display: 'flex', alignItems: 'center', gap: 1, whiteSpace: 'nowrap' }}>
      <Box component="span" aria-hidden sx={{ width: 9, height: 9, bgcolor: colour }} />
      {name}
    </Box>
  )
}
