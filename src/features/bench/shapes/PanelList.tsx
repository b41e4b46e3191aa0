'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { memo, useState } from 'react'
import { placePanels } from '@/core/compose/placePanels'
import { setupOf } from '@/core/model/edit'
import type { Panel } from '@/core/model/panel'
import { toldApart } from '@/core/model/region'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, palette, textSize } from '@/ui/theme'
import { nameForRole } from '@/core/model/region'
import { addBand, addInset, clearCrop, equalBands, setPanel } from '@/edit/layouts'
import { newId, type InsetId, type PanelId } from '@/core/model/ids'
import { useBenchContext, useCalmEdit, useLayout, useCalmParts, usePassage, useView } from '../benchContext'
import { ListLine } from '../ListLine'
import { BackdropLine } from './BackdropLine'
import { PanelTicket } from './PanelTicket'
import { wording } from './wording'

/** What each band and inset shows and how large it is in the first shape; what lies behind them; and more of them. */
export function PanelList() {
  const edit = useCalmEdit()
  const { session } = useBenchContext()
  const { passage, setup, layout } = useCalmParts()
  const shape = edit.highlight.shapes[0]
  if (!shape) return null
  const placed = placePanels(edit, shape, passage)
  const known = [...new Set([...setup.regions.map((r) => r.role), 'whole'])]
  const roles = [...new Set([...known, ...placed.map((p) => p.panel.role)])].join('|')
  const free = known.find((role) => placed.every((p) => p.panel.role !== role)) ?? known[0] ?? 'whole'
  const bands = placed.filter((p) => p.insetId === null).length
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider' }}>
      {placed.map(({ panel, rect, insetId, region, source }, i) => (
        <PanelLine
          key={panel.id}
          panel={panel}
          shows={region ? toldApart(setupOf(edit, source.setupId).regions, region) : panel.role}
          name={insetId === null ? wording.band(i) : wording.inset(i, bands)}
          width={rect.width}
          height={rect.height}
          roles={roles}
        />
      ))}
      <BackdropLine />
      <Box sx={{ display: 'flex', gap: 1.5, px: 3, py: 2 }}>
        <Button onClick={() => addBand(session, { layoutId: layout.id, id: newId<PanelId>(), role: free })}>
          {wording.addBand}
        </Button>
        <Button
          onClick={() =>
            addInset(session, { layoutId: layout.id, id: newId<PanelId>(), insetId: newId<InsetId>(), role: free })
          }
        >
          {wording.addInset}
        </Button>
        {bands > 1 && (
          <Button onClick={() => equalBands(session, { layoutId: layout.id })}>{wording.equalBands}</Button>
        )}
      </Box>
    </Box>
  )
}

interface PanelLineProps {
  panel: Panel
  /** What it shows, told from the others of its role. */
  shows: string
  /** As a person calls it: by its place. */
  name: string
  width: number
  height: number
  /** Those to choose from, with `|` between them; a text, so that nothing is drawn anew while they stay the same. */
  roles: string
}

const PanelLine = memo(function PanelLine({ panel, shows, name, width, height, roles }: PanelLineProps) {
  const { session, view } = useBenchContext()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const selected = useView((v) => v.selection?.kind === 'panel' && v.selection.id === panel.id)
  const { passage } = usePassage()
  const layout = useLayout()
  const corrected = passage.corrections.some(
    (c) => c.panelId === panel.id && (c.dx !== 0 || c.dy !== 0 || c.zoom !== 1),
  )
  return (
    <ListLine
      place={name}
      moreLabel={wording.moreAbout(name.toLowerCase())}
      isSelected={selected}
      onSelect={() => view.setState({ selection: { kind: 'panel', id: panel.id } })}
      onMore={setAnchor}
      fact={
        <Box
          sx={{
            display: 'flex',
            gap: 2,
            alignItems: 'center',
            fontFamily: fonts.numbers,
            fontSize: textSize.note,
            color: palette.inkSoft,
            whiteSpace: 'nowrap',
          }}
        >
          {corrected && (
            <Button variant="text" onClick={() => clearCrop(session, { passageId: passage.id, id: panel.id })}>
              {wording.centreCrop}
            </Button>
          )}
          {width} × {height}
        </Box>
      }
    >
      <Select
        variant="standard"
        disableUnderline
        value={panel.role}
        onChange={(e) =>
          setPanel(session, {
            layoutId: layout.id,
            id: panel.id,
            label: wording.changePanel,
            change: { role: e.target.value },
          })
        }
        inputProps={{ 'aria-label': wording.whatShows(name.toLowerCase()) }}
        renderValue={() => (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, fontWeight: 600 }}>
            <RoleBadge role={panel.role} />
            <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {nameForRole(shows)}
            </Box>
          </Box>
        )}
      >
        {roles.split('|').map((role) => (
          <MenuItem key={role} value={role} sx={{ gap: 2 }}>
            <RoleBadge role={role} />
            {nameForRole(role)}
          </MenuItem>
        ))}
      </Select>
      {anchor && <PanelTicket panel={panel} name={name} anchor={anchor} onClose={() => setAnchor(null)} />}
    </ListLine>
  )
})
