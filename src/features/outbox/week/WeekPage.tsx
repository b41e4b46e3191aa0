'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import dynamic from 'next/dynamic'
import { useEffect, useState } from 'react'
import type { PostId } from '@/core/model/ids'
import type { Post } from '@/core/model/post'
import { planAsCalendar, planAsTable } from '@/core/interchange/planFiles'
import { DAY_MS, daysOf, notesOn, weekStart } from '@/core/week/week'
import { changePost, deletePost, planPost, restorePost } from '@/store/posts'
import { formatDay } from '@/ui/format'
import { offerDownload } from '@/ui/offerDownload'
import { palette, textSize } from '@/ui/theme'
import { useOffer } from '@/ui/useOffer'
import { OutboxBar } from '@/shared/rendering/OutboxBar'
import { OutboxFrame } from '@/shared/rendering/OutboxFrame'
import { PostDialog, type Draft } from './PostDialog'
import { StandInBar } from './StandInBar'
import { weekData } from './weekData'
import { WeekGrid } from './WeekGrid'
import { noteWords } from './weekWords'
import { wording } from '../wording'

const WeekChart = dynamic(() => import('./WeekChart').then((m) => m.WeekChart), { ssr: false })

/** When what goes where: a week of posts, by outlet. */
export function WeekPage() {
  const data = useLiveQuery(weekData, [])
  const [start, setStart] = useState<Date | null>(null)
  const [draft, setDraft] = useState<Draft | null>(null)
  const offer = useOffer()
  // What day it is, the server does not know.
  useEffect(() => setStart(weekStart(new Date())), [])
  if (!data || !start) return <OutboxFrame>{null}</OutboxFrame>
  const { posts, outlets, files } = data
  const days = daysOf(start)
  const end = new Date(start.getFullYear(), start.getMonth(), start.getDate() + 7)
  const shown = posts.filter((p) => new Date(p.dueAt) >= start && new Date(p.dueAt) < end)
  const near = posts.filter((p) => Math.abs(Date.parse(p.dueAt) - start.getTime() - 3.5 * DAY_MS) < 10.5 * DAY_MS)
  const move = (weeks: number) =>
    setStart(weekStart(new Date(start.getFullYear(), start.getMonth(), start.getDate() + 7 * weeks)))
  const remove = async (post: Post) => {
    setDraft(null)
    await deletePost(post.id)
    offer({ words: wording.isNoLongerPlanned(post.title), button: wording.undo, act: () => void restorePost(post) })
  }
  const reschedule = async (id: PostId, dueAt: Date) => {
    const before = posts.find((p) => p.id === id)
    if (before && (await changePost(id, { dueAt: dueAt.toISOString() })))
      offer({
        words: wording.movedTo(before.title, formatDay(dueAt.toISOString())),
        button: wording.undo,
        act: () => void changePost(id, { dueAt: before.dueAt }),
      })
  }
  return (
    <OutboxFrame>
      <OutboxBar>
        <Typography component="h1" sx={{ fontSize: textSize.lead, fontWeight: 700, minWidth: 190 }}>
          {wording.weekOf(formatDay(start.toISOString()))}
        </Typography>
        <Button onClick={() => move(-1)}>{wording.before}</Button>
        <Button onClick={() => setStart(weekStart(new Date()))}>{wording.thisWeek}</Button>
        <Button onClick={() => move(1)}>{wording.after}</Button>
        <Box sx={{ flex: 1 }} />
        <Button
          disabled={shown.length === 0}
          onClick={() =>
            offerDownload(new Blob([planAsCalendar(shown, outlets)], { type: 'text/calendar' }), 'week.ics')
          }
        >
          {wording.calendarFile}
        </Button>
        <Button
          disabled={shown.length === 0}
          onClick={() => offerDownload(new Blob([planAsTable(shown, outlets)], { type: 'text/csv' }), 'week.csv')}
        >
          {wording.table}
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={files.length === 0 || outlets.length === 0}
          onClick={() =>
            setDraft({ post: null, outletId: outlets[0]?.id ?? null, dueAt: new Date(Date.now() + 3_600_000) })
          }
        >
          {wording.planAPost}
        </Button>
      </OutboxBar>
      <StandInBar />
      <Box tabIndex={0} role="region" aria-label={wording.theWeek} sx={{ flex: 1, minHeight: 0, overflow: 'auto' }}>
        {files.length === 0 && (
          <Typography sx={{ px: 4.5, py: 3, fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.thereIsNoFinishedFile}
          </Typography>
        )}
        <WeekGrid
          days={days}
          outlets={outlets}
          posts={shown}
          files={files}
          onOpen={(post) => setDraft({ post, outletId: post.outletId, dueAt: new Date(post.dueAt) })}
          onPlan={(outletId, dueAt) => setDraft({ post: null, outletId, dueAt })}
          onMove={(id, dueAt) => void reschedule(id, dueAt)}
        />
        <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)', gap: 6, px: 4.5, py: 4 }}>
          <Box component="section" aria-label={wording.whatToLookAt}>
            <Typography variant="h2" sx={{ mb: 1 }}>
              {wording.whatToLookAt}
            </Typography>
            {noteWords(notesOn(near), posts, outlets).map((words) => (
              <Typography key={words} sx={{ fontSize: textSize.body, py: 0.5 }}>
                {words}
              </Typography>
            ))}
            {notesOn(near).length === 0 && (
              <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
                {wording.noDoublingsNoCrowdsNo}
              </Typography>
            )}
          </Box>
          {shown.length > 0 && <WeekChart days={days} outlets={outlets} posts={shown} />}
        </Box>
      </Box>
      {draft && (
        <PostDialog
          draft={draft}
          outlets={outlets}
          files={files}
          onClose={() => setDraft(null)}
          onRemove={(post) => void remove(post)}
          onKeep={(made) => {
            setDraft(null)
            void (draft.post ? changePost(draft.post.id, made) : planPost(made))
          }}
        />
      )}
    </OutboxFrame>
  )
}
