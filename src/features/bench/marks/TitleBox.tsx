'use client'

import Box from '@mui/material/Box'
import { useRef } from 'react'
import { styleIn } from '@/core/compose/wordSteps'
import type { Rect } from '@/core/geometry/rect'
import type { Shape } from '@/core/model/shape'
import type { TitleCard } from '@/core/model/words'
import { setText } from '@/core/words/setText'
import { measureText } from '@/media/fonts/measureText'
import { heldKeys } from '@/ui/heldKeys'
import { palette, textSize } from '@/ui/theme'
import { editTitle, removeTitle } from '@/edit/words'
import { useBenchContext, useView } from '../benchContext'
import { wording } from './wording'

/**
 * A title where it stands in a shape: Enter or a double click writes in it there, Esc or a click elsewhere ends that.
 */
export function TitleBox({
  title,
  area,
  shape,
  shown,
}: {
  title: TitleCard
  area: Rect
  shape: Shape
  shown: boolean
}) {
  const { session, view } = useBenchContext()
  const writing = useView((v) => v.writing?.titleId === title.id && v.writing.shapeId === shape.id)
  const selected = useView((v) => v.selection?.kind === 'title' && v.selection.id === title.id)
  const box = useRef<HTMLDivElement>(null)
  // As large as its words, so that the picture beside them can be taken hold of.
  const rect =
    setText(title.text, styleIn(title.style, area, shape), area, Math.min(shape.width, shape.height), measureText)
      ?.extent ?? area
  const gesture = useRef(crypto.randomUUID())
  const select = () => view.setState({ selection: { kind: 'title', id: title.id } })
  const write = () => {
    gesture.current = crypto.randomUUID()
    view.setState({ writing: { titleId: title.id, shapeId: shape.id } })
  }
  const done = () => {
    view.setState({ writing: null })
    if (title.text.trim() === '') removeTitle(session, { id: title.id })
  }
  const onKeyDown = heldKeys({ open: write, remove: () => removeTitle(session, { id: title.id }) })
  const place = {
    left: `${(100 * rect.x) / shape.width}%`,
    top: `${(100 * rect.y) / shape.height}%`,
    width: `${(100 * rect.width) / shape.width}%`,
    height: `${(100 * rect.height) / shape.height}%`,
  }
  return (
    <Box
      ref={box}
      role="group"
      tabIndex={0}
      aria-roledescription={wording.title}
      aria-label={wording.titleOfText(title.text)}
      title={wording.doubleClickToWriteHere}
      onFocus={select}
      onPointerDown={(e) => e.stopPropagation()}
      onDoubleClick={write}
      onKeyDown={onKeyDown}
      style={place}
      sx={{
        position: 'absolute',
        zIndex: 5,
        cursor: 'text',
        outline: selected && shown ? `2px solid ${palette.straw}` : 'none',
        '&:hover': { outline: `1px dashed ${palette.straw}` },
        '&:focus-visible': { outline: `2px solid ${palette.straw}` },
      }}
    >
      {writing && (
        <Box
          component="textarea"
          aria-label={wording.writeTheTitle}
          autoFocus
          dir="auto"
          maxLength={500}
          value={title.text}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) =>
            editTitle(
              session,
              { id: title.id, label: wording.writeTheTitle, change: { text: e.target.value } },
              gesture.current,
            )
          }
          onBlur={done}
          onKeyDown={(e) => {
            e.stopPropagation()
            if (e.key !== 'Escape' && !(e.key === 'Enter' && !e.shiftKey)) return
            e.preventDefault()
            box.current?.focus()
          }}
          sx={{
            position: 'absolute',
            left: 0,
            right: 0,
            bottom: '100%',
            width: '100%',
            minWidth: 180,
            minHeight: 44,
            boxSizing: 'border-box',
            p: 1.5,
            border: `2px solid ${palette.straw}`,
            borderRadius: '3px',
            bgcolor: '#fff',
            color: palette.ink,
            font: 'inherit',
            fontSize: textSize.body,
            lineHeight: 1.3,
            resize: 'none',
            fieldSizing: 'content',
            zIndex: 6,
          }}
        />
      )}
    </Box>
  )
}
