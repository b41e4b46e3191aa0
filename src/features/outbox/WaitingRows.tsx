'use client'

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import DragIndicator from '@mui/icons-material/DragIndicator'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import { useState } from 'react'
import type { RenderId } from '@/core/model/ids'
import type { Render } from '@/core/model/render'
import { orderRenders } from '@/store/renders'
import { RenderRow } from './RenderRow'
import { wording } from './wording'

/** The renders that wait; dragged, or moved with Space and arrows, into another order. */
export function WaitingRows({ renders }: { renders: readonly Render[] }) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  // What was just moved stays where it was dropped until the store says so too.
  const [moved, setMoved] = useState<RenderId[] | null>(null)
  const ids = renders.map((r) => r.id)
  const order = moved && moved.length === ids.length && moved.every((id) => ids.includes(id)) ? moved : ids
  const drop = ({ active, over }: DragEndEvent) => {
    const from = order.indexOf(active.id as RenderId)
    const to = over ? order.indexOf(over.id as RenderId) : -1
    if (to < 0 || from === to) return
    const next = order.filter((id) => id !== active.id)
    next.splice(to, 0, active.id as RenderId)
    setMoved(next)
    void orderRenders(next).then(() => setMoved(null))
  }
  return (
    <DndContext id="waiting" sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={order} strategy={verticalListSortingStrategy}>
        {order.map((id, n) => {
          const render = renders.find((r) => r.id === id)
          return render && <WaitingRow key={id} render={render} place={n + 1} />
        })}
      </SortableContext>
    </DndContext>
  )
}

function WaitingRow({ render, place }: { render: Render; place: number }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: render.id })
  return (
    <Box
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        position: 'relative',
        zIndex: isDragging ? 1 : undefined,
        bgcolor: isDragging ? 'background.paper' : undefined,
        boxShadow: isDragging ? 3 : undefined,
      }}
    >
      <RenderRow
        render={render}
        handle={
          <IconButton
            size="small"
            {...attributes}
            {...listeners}
            aria-label={wording.moveNumberInTheQueue(render.edit.highlight.name, render.shape.id, place)}
            sx={{ cursor: 'grab', touchAction: 'none' }}
          >
            <DragIndicator fontSize="small" />
          </IconButton>
        }
      />
    </Box>
  )
}
