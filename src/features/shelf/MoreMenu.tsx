'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ListItemText from '@mui/material/ListItemText'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useState } from 'react'
import { palette } from '@/ui/theme'
import { BackUpDialog } from './backup/BackUpDialog'
import { standInClipHost } from './clipHost/clipHost'
import { ClipHostDialog } from './clipHost/ClipHostDialog'
import { DiagnosticsDialog } from './DiagnosticsDialog'
import type { TakenIn } from './takeIn'
import type { Watch } from './watch/useWatch'
import { WatchDialog } from './watch/WatchDialog'
import { wording } from './wording'

type Open = 'watch' | 'host' | 'backup' | 'diagnostics'

/** The ways onto the Shelf beside choosing and dropping files, and all of it as one file. */
export function MoreMenu({ watch, onTakenIn }: { watch: Watch | undefined; onTakenIn: (taken: TakenIn) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [open, setOpen] = useState<Open | null>(null)
  const choose = (what: Open) => {
    setAnchor(null)
    setOpen(what)
  }
  return (
    <>
      {watch?.folder && (
        <Button
          onClick={() => setOpen('watch')}
          startIcon={
            <Box
              sx={{
                width: 8,
                height: 8,
                borderRadius: '50%',
                bgcolor: watch.state.kind === 'on' || watch.state.kind === 'elsewhere' ? palette.leaf : palette.straw,
              }}
            />
          }
          sx={{ maxWidth: 260 }}
        >
          <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {watch.state.kind === 'on' && watch.state.taking
              ? wording.takingIn(watch.state.taking)
              : wording.watching(watch.folder.name)}
          </Box>
        </Button>
      )}
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.more}
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { sx: { maxWidth: 380 } } }}
      >
        <MenuItem onClick={() => choose('watch')} sx={{ whiteSpace: 'normal' }}>
          <ListItemText primary={wording.theRecordersFolderButton} secondary={wording.recordingsComeInByThemselves} />
        </MenuItem>
        <MenuItem onClick={() => choose('host')} sx={{ whiteSpace: 'normal' }}>
          <ListItemText primary={wording.fromAClipHostButton} secondary={wording.byMonthOrByA} />
        </MenuItem>
        <MenuItem onClick={() => choose('backup')} sx={{ whiteSpace: 'normal' }}>
          <ListItemText primary={wording.backUpTheShelfButton} secondary={wording.asOneFileToBe} />
        </MenuItem>
        <MenuItem onClick={() => choose('diagnostics')} sx={{ whiteSpace: 'normal' }}>
          <ListItemText primary={wording.diagnosticsButton} secondary={wording.whatWentWrongLatelyTo} />
        </MenuItem>
      </Menu>
      {open === 'diagnostics' && <DiagnosticsDialog onClose={() => setOpen(null)} />}
      {open === 'backup' && <BackUpDialog onClose={() => setOpen(null)} />}
      {open === 'watch' && watch && <WatchDialog watch={watch} onClose={() => setOpen(null)} />}
      {open === 'host' && <ClipHostDialog host={standInClipHost} onTakenIn={onTakenIn} onClose={() => setOpen(null)} />}
    </>
  )
}
