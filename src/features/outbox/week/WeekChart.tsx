'use client'

import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { format } from 'date-fns'
import { Bar, BarChart, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import type { Outlet } from '@/core/model/outlet'
import type { Post } from '@/core/model/post'
import { palette, textSize } from '@/ui/theme'
import { wording } from '../wording'

const COLOURS = [palette.leaf, palette.slate, palette.straw, palette.haw, '#7A8B5C', '#9A7B8F', '#5C6E8B', '#B08D57']

/** How many posts go where, by day. */
export function WeekChart({
  days,
  outlets,
  posts,
}: {
  days: readonly Date[]
  outlets: readonly Outlet[]
  posts: readonly Post[]
}) {
  const used = outlets.filter((o) => posts.some((p) => p.outletId === o.id))
  const rows = days.map((day) => ({
    day: format(day, 'EEE'),
    ...Object.fromEntries(
      used.map((o) => [
        o.name,
        posts.filter((p) => p.outletId === o.id && new Date(p.dueAt).toDateString() === day.toDateString()).length,
      ]),
    ),
  }))
  return (
    <Box component="section" aria-label={wording.postsByDayAndOutlet}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {wording.whatGoesWhere}
      </Typography>
      <Box sx={{ height: 180 }}>
        <ResponsiveContainer>
          <BarChart data={rows} margin={{ left: -24, right: 8, top: 4, bottom: 0 }}>
            <XAxis dataKey="day" tick={{ fontSize: textSize.small }} />
            <YAxis allowDecimals={false} tick={{ fontSize: textSize.small }} />
            <Tooltip />
            <Legend wrapperStyle={{ fontSize: textSize.note }} />
            {used.map((o, n) => (
              <Bar
                key={o.id}
                dataKey={o.name}
                stackId="posts"
                fill={COLOURS[n % COLOURS.length] as string}
                isAnimationActive={false}
              />
            ))}
          </BarChart>
        </ResponsiveContainer>
      </Box>
    </Box>
  )
}
