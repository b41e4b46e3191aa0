'use client'

import Box from '@mui/material/Box'
import { memo, useEffect, useRef, type KeyboardEvent } from 'react'
import type { PlacedPanel } from '@/core/compose/compose'
import { scaleRect } from '@/core/geometry/rect'
import type { Shape } from '@/core/model/shape'
import { roleMark } from '@/ui/roleMarks'
import { fonts } from '@/ui/theme'
import { useBenchContext, usePassage, useView } from '../benchContext'
import { nudgeCrop } from '../edits'
import { useDrag } from '@/ui/useDrag'
import { useSelectedRegion } from '../useSelectedRegion'

const ZOOM_STEP = 1.05

const STEP: Record<string, [number, number]> = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

interface PanelBoxProps {
  placed: PlacedPanel
  shape: Shape
  marks: boolean
}

/** Placing panels makes new objects for all of them whenever one region moves: what matters here of a panel is compared. */
function showTheSame(a: PanelBoxProps, b: PanelBoxProps): boolean {
  const matters = ({ placed: { panel, rect, region, picture }, shape, marks }: PanelBoxProps) => [panel, shape, marks, region?.id, rect.x, rect.y, rect.width, rect.height, picture?.crop.width, picture?.dest.width]
  const other = matters(b)
  return matters(a).every((value, i) => value === other[i])
}

/** A panel in the result: drag the picture inside it, zoom it with the wheel or + and −, nudge it with the arrows. */
export const PanelBox = memo(function PanelBox({ placed, shape, marks }: PanelBoxProps) {
  const { session, view } = useBenchContext()
  const { passage, recording } = usePassage()
  const { video } = recording
  const { panel, rect, region, picture } = placed
  const element = useRef<HTMLDivElement>(null)
  const selectedRegion = useSelectedRegion()
  const selected = useView((v) => v.selection?.kind === 'panel' && v.selection.id === panel.id) || (region !== null && region.id === selectedRegion)
  const { colour, letter } = roleMark(panel.role)
  const select = () => view.setState({ selection: { kind: 'panel', id: panel.id } })
  /** Source pixels that one output pixel stands for. */
  const sourcePerOutput = picture ? picture.crop.width / picture.dest.width : 1
  const nudgeBy = (outputDx: number, outputDy: number, gesture: string) =>
    nudgeCrop(session, passage.id, shape, panel.id, { dx: (-outputDx * sourcePerOutput) / video.width, dy: (-outputDy * sourcePerOutput) / video.height }, gesture)

  const dragging = useDrag((event) => {
    select()
    if (!picture || panel.fit !== 'fill') return null
    const shown = event.currentTarget.getBoundingClientRect()
    const outputPerCss = rect.width / shown.width
    let last = { dx: 0, dy: 0 }
    return ({ dx, dy, gesture }) => {
      nudgeBy((dx - last.dx) * outputPerCss, (dy - last.dy) * outputPerCss, gesture)
      last = { dx, dy }
    }
  })

  useEffect(() => {
    const node = element.current
    if (!node) return
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      nudgeCrop(session, passage.id, shape, panel.id, { zoom: event.deltaY < 0 ? ZOOM_STEP : 1 / ZOOM_STEP }, `wheel ${panel.id}`)
    }
    node.addEventListener('wheel', onWheel, { passive: false })
    return () => node.removeEventListener('wheel', onWheel)
  }, [session, passage.id, shape, panel.id])

  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEP[event.key]
    const zoom = event.key === '+' || event.key === '=' ? ZOOM_STEP : event.key === '-' ? 1 / ZOOM_STEP : null
    if ((!step && zoom === null) || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    event.stopPropagation()
    if (zoom !== null) nudgeCrop(session, passage.id, shape, panel.id, { zoom }, `keys zoom ${panel.id}`)
    else if (step) nudgeBy(-step[0] * (event.shiftKey ? 10 : 1), -step[1] * (event.shiftKey ? 10 : 1), `keys crop ${panel.id}`)
  }

  const place = scaleRect(rect, 100 / shape.width, 100 / shape.height)
  return (
    <Box
      ref={element}
      role="group"
      tabIndex={0}
      aria-roledescription="panel"
      aria-label={`${panel.role} panel, ${rect.width} × ${rect.height}${region ? '' : ', nothing to show'}`}
      onPointerDown={dragging}
      onFocus={select}
      onKeyDown={onKeyDown}
      sx={{ position: 'absolute', left: `${place.x}%`, top: `${place.y}%`, width: `${place.width}%`, height: `${place.height}%`, cursor: picture ? 'grab' : 'default', touchAction: 'none', outline: marks && selected ? `2px solid ${colour}` : 'none', outlineOffset: -2, '&:focus-visible': { outline: `2px solid ${colour}`, boxShadow: 'inset 0 0 0 4px #fff' } }}
    >
      {marks && (
        <Box component="span" aria-hidden sx={{ position: 'absolute', left: 0, top: 0, px: '5px', bgcolor: colour, color: '#fff', fontFamily: fonts.numbers, fontSize: 10, fontWeight: 700, lineHeight: '15px' }}>
          {letter}
        </Box>
      )}
      {!region && (
        <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', textAlign: 'center', p: 1, color: '#DAD7CC', fontSize: 11 }}>
          No {panel.role} region yet
        </Box>
      )}
    </Box>
  )
}, showTheSame)
