'use client'

import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core'
import { CSS } from '@dnd-kit/utilities'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import AddIcon from '@mui/icons-material/Add'
import { format } from 'date-fns'
import type { OutletId, PostId } from '@/core/model/ids'
import type { Outlet } from '@/core/model/outlet'
import type { Post } from '@/core/model/post'
import { onDay } from '@/core/week/week'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import type { PostableFile } from './weekData'
import { stateWords, timeOf } from './weekWords'
import { wording } from '../wording'

interface Props {
  days: readonly Date[]
  outlets: readonly Outlet[]
  posts: readonly Post[]
  files: readonly PostableFile[]
  onOpen: (post: Post) => void
  onPlan: (outletId: OutletId, dueAt: Date) => void
  onMove: (id: PostId, dueAt: Date) => void
}

/** When a new post is put into a day: early evening. */
const USUAL_HOUR = 18

/** Arrows go by a day: as far as a column is wide. */
const byDays: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const width = context.droppableRects.values().next().value?.width ?? 150
  if (event.code === 'ArrowRight') return { ...currentCoordinates, x: currentCoordinates.x + width }
  if (event.code === 'ArrowLeft') return { ...currentCoordinates, x: currentCoordinates.x - width }
  return undefined
}

/** Outlets down, days across; posts are dragged to other days, or moved with Space and the arrows. */
export function WeekGrid({ days, outlets, posts, files, onOpen, onPlan, onMove }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byDays,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  )
  const drop = ({ active, over }: DragEndEvent) => {
    const post = posts.find((p) => p.id === active.id)
    const day = days[Number(String(over?.id).split(' ').at(-1))]
    if (!post || !day) return
    const to = onDay(new Date(post.dueAt), day)
    if (to.toISOString() !== post.dueAt) onMove(post.id, to)
  }
  const today = new Date().toDateString()
  return (
    <DndContext id="week" sensors={sensors} onDragEnd={drop}>
      <Box
        role="table"
        aria-label={wording.postsOfTheWeek}
        sx={{ display: 'grid', gridTemplateColumns: '130px repeat(7, minmax(110px, 1fr))', minWidth: 900 }}
      >
        <Box role="row" sx={{ display: 'contents' }}>
          <Box role="columnheader" sx={head}>
            {wording.outlet}
          </Box>
          {days.map((day) => (
            <Box
              role="columnheader"
              key={day.toISOString()}
              sx={{ ...head, color: day.toDateString() === today ? palette.leaf : palette.ink }}
            >
              {format(day, 'EEE d MMM')}
            </Box>
          ))}
        </Box>
        {outlets.map((outlet) => (
          <Box role="row" key={outlet.id} sx={{ display: 'contents' }}>
            <Box
              role="rowheader"
              sx={{ ...cell, fontSize: textSize.body, fontWeight: 600, px: 4.5, overflowWrap: 'anywhere' }}
            >
              {outlet.name}
            </Box>
            {days.map((day, n) => (
              <DayCell
                key={n}
                id={`${outlet.id} ${n}`}
                label={`${outlet.name}, ${format(day, 'EEEE')}`}
                onPlan={
                  files.length > 0
                    ? () => onPlan(outlet.id, new Date(day.getFullYear(), day.getMonth(), day.getDate(), USUAL_HOUR))
                    : null
                }
              >
                {posts
                  .filter((p) => p.outletId === outlet.id && new Date(p.dueAt).toDateString() === day.toDateString())
                  .map((post) => (
                    <PostCard key={post.id} post={post} onOpen={() => onOpen(post)} />
                  ))}
              </DayCell>
            ))}
          </Box>
        ))}
      </Box>
    </DndContext>
  )
}

const head = {
  fontSize: textSize.note,
  fontWeight: 700,
  px: 2,
  py: 1.5,
  borderBottom: 1,
  borderRight: 1,
  borderColor: 'divider',
  bgcolor: palette.sheet,
  position: 'sticky',
  top: 0,
  zIndex: 1,
} as const
const cell = { borderBottom: 1, borderRight: 1, borderColor: 'divider', p: 1, minHeight: 76 } as const

function DayCell({
  id,
  label,
  onPlan,
  children,
}: {
  id: string
  label: string
  onPlan: (() => void) | null
  children: React.ReactNode
}) {
  const { setNodeRef, isOver } = useDroppable({ id })
  return (
    <Box
      ref={setNodeRef}
      role="cell"
      aria-label={label}
      sx={{
        ...cell,
        bgcolor: isOver ? palette.leafTint : undefined,
        display: 'flex',
        flexDirection: 'column',
        gap: 1,
        '&:hover .plan, &:focus-within .plan': { opacity: 1 },
      }}
    >
      {children}
      {onPlan && (
        <IconButton
          className="plan"
          size="small"
          aria-label={wording.planAPostOfLabel(label)}
          onClick={onPlan}
          sx={{ alignSelf: 'flex-start', opacity: 0, p: 0.5 }}
        >
          <AddIcon sx={{ fontSize: iconSize.small }} />
        </IconButton>
      )}
    </Box>
  )
}

const COLOURS: Record<Post['state']['kind'], string> = {
  planned: palette.slate,
  sending: palette.straw,
  posted: palette.leaf,
  failed: palette.haw,
}

function PostCard({ post, onOpen }: { post: Post; onOpen: () => void }) {
  const fixed = post.state.kind === 'posted' || post.state.kind === 'sending'
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: post.id, disabled: fixed })
  const time = timeOf(post.dueAt)
  return (
    <Box
      ref={setNodeRef}
      component="button"
      {...attributes}
      {...listeners}
      aria-label={`${post.title}, ${time}, ${stateWords(post)}`}
      data-state={post.state.kind}
      onClick={onOpen}
      style={{ transform: CSS.Translate.toString(transform) }}
      sx={{
        all: 'unset',
        boxSizing: 'border-box',
        width: '100%',
        cursor: fixed ? 'pointer' : 'grab',
        bgcolor: palette.sheet,
        border: 1,
        borderColor: 'divider',
        borderLeft: `3px solid ${COLOURS[post.state.kind]}`,
        borderRadius: 1,
        px: 1.5,
        py: 1,
        touchAction: 'none',
        position: 'relative',
        zIndex: isDragging ? 2 : undefined,
        boxShadow: isDragging ? 3 : undefined,
        '&:focus-visible': { outline: `2px solid ${palette.leaf}`, outlineOffset: 1 },
      }}
    >
      <Box
        sx={{
          fontSize: textSize.note,
          fontWeight: 600,
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: 'nowrap',
        }}
        title={post.title}
      >
        {post.title}
      </Box>
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft }}>{time}</Box>
      {post.state.kind !== 'planned' && (
        <Box sx={{ fontSize: textSize.small, color: post.state.kind === 'failed' ? palette.haw : palette.inkSoft }}>
          {stateWords(post)}
        </Box>
      )}
    </Box>
  )
}
