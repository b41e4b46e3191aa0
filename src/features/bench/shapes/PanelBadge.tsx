'use client'

import Box from '@mui/material/Box'
import { memo, useRef } from 'react'
import type { PanelId } from '@/core/model/ids'
import type { Panel } from '@/core/model/panel'
import { roleMark } from '@/ui/roleMarks'
import { fonts, textSize } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { swapPanels } from '@/edit/layouts'
import { useBenchContext, useLayout } from '../benchContext'
import { wording } from './wording'

/**
 * A panel's letter; dragged onto another panel the two change places. By keyboard: “Change places with” in the
 * panel's ticket.
 */
export const PanelBadge = memo(function PanelBadge({ panel }: { panel: Panel }) {
  const { session } = useBenchContext()
  const layout = useLayout()
  const over = useRef<HTMLElement | null>(null)
  const { colour, letter } = roleMark(panel.role)
  const mark = (element: HTMLElement | null) => {
    if (over.current) over.current.style.boxShadow = ''
    over.current = element
    if (element) element.style.boxShadow = 'inset 0 0 0 3px #fff'
  }
  const dragging = useDrag(
    () =>
      ({ clientX, clientY }) =>
        mark(panelAt(clientX, clientY, panel.id)),
    () => {
      const other = over.current?.dataset.panel
      mark(null)
      if (other) swapPanels(session, { layoutId: layout.id, one: panel.id, other: other as PanelId })
    },
  )
  return (
    <Box
      component="span"
      aria-hidden
      title={wording.dragOntoAnotherPanelThey}
      onPointerDown={dragging}
      sx={{
        position: 'absolute',
        left: 0,
        top: 0,
        px: '5px',
        bgcolor: colour,
        color: '#fff',
        fontFamily: fonts.numbers,
        fontSize: textSize.tiny,
        fontWeight: 700,
        lineHeight: '15px',
        cursor: 'grab',
        touchAction: 'none',
      }}
    >
      {letter}
    </Box>
  )
})

/** The panel under a point of the screen, other than `not`; the uppermost. */
function panelAt(x: number, y: number, not: string): HTMLElement | null {
  const found = document
    .elementsFromPoint(x, y)
    .find((e): e is HTMLElement => e instanceof HTMLElement && e.dataset.panel !== undefined && e.dataset.panel !== not)
  return found ?? null
}
