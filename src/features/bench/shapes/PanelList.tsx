'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { memo } from 'react'
import { placePanels } from '@/core/compose/compose'
import type { Panel } from '@/core/model/layout'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, palette } from '@/ui/theme'
import { useBenchContext, useEdit, useParts, usePassage, useView } from '../benchContext'
import { clearCrop, nameForRole, setPanelRole } from '../edits'

/** What each band shows and how high it is in the first shape. */
export function PanelList() {
  const edit = useEdit()
  const { passage, setup } = useParts()
  const shape = edit.highlight.shapes[0]
  if (!shape) return null
  const known = setup.regions.map((r) => r.role)
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider' }}>
      {placePanels(edit, shape, passage).map(({ panel, rect }, i) => (
        <PanelLine key={panel.id} panel={panel} number={i + 1} width={rect.width} height={rect.height} roles={[...new Set([...known, panel.role])].join('|')} />
      ))}
    </Box>
  )
}

/** `roles`: those to choose from, with `|` between them; a text, so that nothing is drawn anew while they stay the same. */
const PanelLine = memo(function PanelLine({ panel, number, width, height, roles }: { panel: Panel; number: number; width: number; height: number; roles: string }) {
  const { session, view } = useBenchContext()
  const selected = useView((v) => v.selection?.kind === 'panel' && v.selection.id === panel.id)
  const { passage } = usePassage()
  const corrected = passage.corrections.some((c) => c.panelId === panel.id && (c.dx !== 0 || c.dy !== 0 || c.zoom !== 1))
  return (
    <Box onClick={() => view.setState({ selection: { kind: 'panel', id: panel.id } })} sx={{ display: 'grid', gridTemplateColumns: '64px minmax(0, 1fr) auto', columnGap: 2, alignItems: 'center', px: 3, minHeight: 32, borderBottom: 1, borderColor: 'divider', bgcolor: selected ? palette.leafTint : undefined }}>
      <Box sx={{ fontSize: 12.5, color: palette.inkSoft }}>Band {number}</Box>
      <Select
        variant="standard"
        disableUnderline
        value={panel.role}
        onChange={(e) => setPanelRole(session, panel.id, e.target.value)}
        inputProps={{ 'aria-label': `What band ${number} shows` }}
        renderValue={() => (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, fontWeight: 600 }}>
            <RoleBadge role={panel.role} />
            {nameForRole(panel.role)}
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
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', fontFamily: fonts.numbers, fontSize: 12, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
        {corrected && (
          <Button variant="text" onClick={() => clearCrop(session, passage.id, panel.id)}>
            Centre crop
          </Button>
        )}
        {width} × {height}
      </Box>
    </Box>
  )
})
