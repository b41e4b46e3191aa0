'use client'

import Box from '@mui/material/Box'
import { markPlace } from '@/core/compose/markPlaces'
import type { HungMark } from '@/core/model/pictureMark'
import type { Shape } from '@/core/model/shape'
import { heldKeys } from '@/ui/heldKeys'
import { palette } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { placeMark, removeMark } from '@/edit/marks'
import { useBenchContext, useEdit, useView } from '../benchContext'
import { CornerGrips } from '@/ui/CornerGrips'
import { useHanging } from '../shapes/useHanging'
import { markName } from './markWords'
import { wording } from './wording'

/** Smallest side of a mark, px of the shape. */
const LEAST = 16

/** A mark in the result: dragged, resized by its corners, nudged by arrows, with Alt resized; Delete takes it away. */
export function MarkBox({ mark, shape, shown }: { mark: HungMark; shape: Shape; shown: boolean }) {
  const { session, view } = useBenchContext()
  const edit = useEdit()
  const selected = useView((v) => v.selection?.kind === 'mark' && v.selection.id === mark.id)
  const { rect } = markPlace(edit, shape, mark)
  const select = () => view.setState({ selection: { kind: 'mark', id: mark.id } })
  const hanging = useHanging(shape, {
    id: mark.id,
    rect,
    insetId: null,
    least: LEAST,
    place: (to, _only, gesture) => placeMark(session, { id: mark.id, shape, rect: to }, gesture),
  })
  const dragging = useDrag((event) => {
    select()
    return hanging.drag(
      rect.width / event.currentTarget.getBoundingClientRect().width,
      (event.target as HTMLElement).dataset.insetGrip ?? null,
    )
  }, hanging.release)
  const onKeyDown = heldKeys({
    arrow: ({ dx, dy, times, alt }) => hanging.key(dx * 2 * times, dy * 2 * times, alt),
    remove: () => removeMark(session, { id: mark.id }),
  })
  return (
    <Box
      role="group"
      tabIndex={0}
      aria-roledescription={wording.mark}
      aria-label={`${markName(mark, edit.imageFiles)}, ${rect.width} × ${rect.height}`}
      data-mark={mark.id}
      onPointerDown={dragging}
      onFocus={select}
      onKeyDown={onKeyDown}
      style={{
        left: `${(100 * rect.x) / shape.width}%`,
        top: `${(100 * rect.y) / shape.height}%`,
        width: `${(100 * rect.width) / shape.width}%`,
        height: `${(100 * rect.height) / shape.height}%`,
      }}
      sx={{
        position: 'absolute',
        zIndex: 5,
        cursor: 'move',
        touchAction: 'none',
        outline: selected && shown ? `2px solid ${palette.straw}` : 'none',
        '&:hover': { outline: `1px dashed ${palette.straw}` },
        '&:focus-visible': { outline: `2px solid ${palette.straw}`, boxShadow: 'inset 0 0 0 3px #fff' },
      }}
    >
      {selected && shown && <CornerGrips name="inset-grip" size={14} colour={palette.straw} />}
    </Box>
  )
}
