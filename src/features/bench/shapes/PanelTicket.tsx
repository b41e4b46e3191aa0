'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { Fault, Remedy } from '@/core/findings/finding'
import { placePanels } from '@/core/compose/placePanels'
import { panelsOf } from '@/core/layout/tree'
import { PLAIN_OUTLINE } from '@/core/model/outline'
import type { Fit, Panel, Turn } from '@/core/model/panel'
import { correctionFor } from '@/core/model/passage'
import type { PanelId } from '@/core/model/ids'
import { ChoiceField } from '@/ui/ChoiceField'
import { PercentField } from '@/ui/PercentField'
import { Ticket } from '@/ui/Ticket'
import { nameForRole } from '@/core/model/region'
import { nudgeCrop, removePanel, setPanel, swapPanels } from '@/edit/layouts'
import { doRemedies } from '@/edit/remedies'
import { useBenchContext, useEdit, useParts, useView } from '../benchContext'
import { OutlineFields } from '../OutlineFields'
import { FeedFields } from './FeedFields'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

const FITS: Record<Fit, string> = { fill: wording.fillIt, whole: wording.showItWhole }
const TURNS = ['none', wording.aQuarterTurnRight, wording.upsideDown, wording.aQuarterTurnLeft] as const
const small = { slotProps: { typography: { sx: { fontSize: textSize.note } } } } as const

/** All that can be set about a panel besides what it shows and where it lies. */
export function PanelTicket({
  panel,
  name,
  anchor,
  onClose,
}: {
  panel: Panel
  name: string
  anchor: HTMLElement
  onClose: () => void
}) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const { layout, passage } = useParts()
  const set = (label: string, change: Partial<Panel>, gesture?: string) =>
    setPanel(session, { layoutId: layout.id, id: panel.id, label, change }, gesture)
  const shape = edit.highlight.shapes[0]
  const placed = shape && placePanels(edit, shape, passage)
  const own = placed?.find((p) => p.panel.id === panel.id)
  const region = own?.region
  const canZoom = own?.canZoom ?? panel.fit === 'fill'
  const panels = panelsOf(layout.arrangement)
  const others = panels.filter((p) => p.id !== panel.id)
  const correction = (shape && correctionFor(passage, panel.id, shape.id)) ?? { dx: 0, dy: 0, zoom: 1 }
  const looked = useView((v) => v.looked)
  /** What would move the panel's crop, in whichever shape, so that faults of some kinds are gone. */
  const movesFor = (...kinds: Fault['kind'][]): Remedy[] =>
    [...(looked?.findings ?? []), ...(looked?.accepted ?? [])].flatMap(({ panelId, passageId, fault, remedy }) =>
      panelId === panel.id && passageId === passage.id && kinds.includes(fault.kind) && remedy?.kind === 'move-crop'
        ? [remedy]
        : [],
    )
  const hidden = movesFor('head-cut', 'focus-cut', 'read-cut')
  const doubled = movesFor('shown-twice')
  const move = (label: string, remedies: readonly Remedy[]) => doRemedies(session, { remedies, label })
  const leave = (action: () => void) => () => {
    onClose()
    action()
  }
  return (
    <Ticket label={wording.moreAbout(name.toLowerCase())} anchor={anchor} onClose={onClose} gap={2}>
      <ChoiceField
        label={wording.theRegionIsTo}
        value={own?.panel.fit ?? panel.fit}
        options={FITS}
        onChange={(fit) => set(wording.changeFit, { fit: fit })}
      />
      <TextField
        select
        size="small"
        label={wording.turned}
        value={panel.turn}
        onChange={(e) => set(wording.turnPanel, { turn: Number(e.target.value) as Turn })}
      >
        {TURNS.map((words, turn) => (
          <MenuItem key={words} value={turn}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={
          <Checkbox size="small" checked={panel.flip} onChange={(_, flip) => set(wording.flipPanel, { flip })} />
        }
        label={wording.leftAndRightChangedOver}
        {...small}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', rowGap: 1.5, columnGap: 3, alignItems: 'center' }}>
        {canZoom && (
          <PercentField
            label={wording.zoom}
            value={panel.zoom}
            least={100}
            most={2000}
            step={5}
            onSet={(share, gesture) => set(wording.zoomPanel, { zoom: share }, gesture)}
          />
        )}
        {canZoom && shape && (
          <PercentField
            label={wording.zoomInThisPassage}
            value={correction.zoom}
            least={100}
            most={800}
            step={5}
            onSet={(share, gesture) =>
              nudgeCrop(
                session,
                {
                  passageId: passage.id,
                  scope: { shape, only: false },
                  id: panel.id,
                  by: { zoom: share / correction.zoom },
                },
                gesture,
              )
            }
          />
        )}
        <PercentField
          label={wording.opacity}
          value={panel.opacity}
          least={0}
          most={100}
          step={5}
          onSet={(share, gesture) => set(wording.setOpacity, { opacity: share }, gesture)}
        />
      </Box>
      <FormControlLabel
        title={wording.insteadOfWhatTheRegion}
        control={
          <Checkbox
            size="small"
            checked={panel.outline !== null}
            onChange={(_, own) =>
              set(wording.changeOutline, { outline: own ? (region?.outline ?? PLAIN_OUTLINE) : null })
            }
          />
        }
        label={wording.anOutlineOfItsOwn}
        {...small}
      />
      {panel.outline && (
        <OutlineFields outline={panel.outline} onSet={(outline, label, gesture) => set(label, { outline }, gesture)} />
      )}
      <FeedFields panelId={panel.id} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        <Button disabled={hidden.length === 0} onClick={leave(() => move(wording.bringIntoView, hidden))}>
          {wording.bringIntoView}
        </Button>
        <Button disabled={doubled.length === 0} onClick={leave(() => move(wording.moveClearOfFaces, doubled))}>
          {wording.moveClearOfFaces}
        </Button>
      </Box>
      {others.length > 0 && (
        <TextField
          select
          size="small"
          label={wording.changePlacesWith}
          value=""
          onChange={(e) =>
            leave(() => swapPanels(session, { layoutId: layout.id, one: panel.id, other: e.target.value as PanelId }))()
          }
        >
          {others.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {nameForRole(p.role)} ({panels.indexOf(p) + 1})
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box>
        <Button
          disabled={others.length === 0}
          onClick={leave(() => removePanel(session, { layoutId: layout.id, id: panel.id }))}
        >
          {wording.remove(name.toLowerCase())}
        </Button>
      </Box>
    </Ticket>
  )
}
