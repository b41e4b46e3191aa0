'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Divider from '@mui/material/Divider'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { confirmed } from '@/core/model/region'
import type { Setup } from '@/core/model/setup'
import { changeSetup, keptSetups, letFollow, setupUses, type SetupUse } from '@/store/setups'
import { SetupDiagram } from '@/ui/SetupDiagram'
import { palette, textSize } from '@/ui/theme'
import { applySetup } from '@/edit/regions'
import { useBenchContext, useCalmParts } from '../benchContext'
import { KeepSetupDialog } from './KeepSetupDialog'
import { wording } from './wording'

/** The setup in use: apply another, keep this one, or bring what was changed back to the kept one. */
export function SetupMenu() {
  const { session } = useBenchContext()
  const { setup } = useCalmParts()
  const { enqueueSnackbar } = useSnackbar()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [keeping, setKeeping] = useState(false)
  const kept = useLiveQuery(keptSetups)
  const uses = useLiveQuery(setupUses)
  const base = kept?.find((s) => s.id === setup.basedOn) ?? null
  const changed = base !== null && !sameRegions(base, setup)
  const others = base ? (uses?.get(base.id) ?? []).filter((u) => u.highlightId !== session.value.highlight.id) : []
  const close = () => setAnchor(null)
  const apply = (other: Setup) => {
    applySetup(session, { setupId: setup.id, kept: other })
    close()
  }
  const update = async (followers: readonly SetupUse[]) => {
    close()
    if (!base) return
    const fingerprint = base.fingerprint ?? setup.fingerprint
    await changeSetup(base.id, { regions: confirmed(setup.regions), fingerprint })
    const followed = await letFollow(
      { ...base, regions: confirmed(setup.regions), fingerprint },
      followers.map((f) => f.highlightId),
    )
    enqueueSnackbar(
      followed > 0
        ? wording.isChangedAndOtherWith(base.name, followed)
        : wording.isChangedHighlightsThatUsed(base.name),
    )
  }
  return (
    <>
      <Button
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-haspopup="menu"
        sx={{ minWidth: 0, maxWidth: 190 }}
        title={wording.setup(setup.name)}
      >
        <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {base ? setup.name : wording.setupCapital}
          {changed && ' *'}
        </Box>
      </Button>
      {anchor && (
        <Menu anchorEl={anchor} open onClose={close} slotProps={{ paper: { sx: { width: 320 } } }}>
          {kept?.map((s) => (
            <MenuItem key={s.id} selected={s.id === base?.id} onClick={() => apply(s)} sx={{ gap: 3 }}>
              <SetupDiagram regions={s.regions} width={64} />
              <Box sx={{ minWidth: 0 }}>
                <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', fontWeight: 600 }}>{s.name}</Box>
                <Box
                  sx={{ fontSize: textSize.note, color: palette.inkSoft, overflow: 'hidden', textOverflow: 'ellipsis' }}
                >
                  {s.id === base?.id ? inUseWords(changed) : s.tags.join(', ') || wording.regions(s.regions.length)}
                </Box>
              </Box>
            </MenuItem>
          ))}
          {kept?.length === 0 && <MenuItem disabled>{wording.noSetupIsKeptYet}</MenuItem>}
          <Divider />
          {changed && <MenuItem onClick={() => void update([])}>{wording.changeForLater(base.name)}</MenuItem>}
          {changed && others.length > 0 && (
            <MenuItem onClick={() => void update(others)}>
              {wording.changeAndTheOtherWith(base.name, others.length)}
            </MenuItem>
          )}
          <MenuItem
            onClick={() => {
              close()
              setKeeping(true)
            }}
          >
            {wording.keepTheseRegionsAsA}
          </MenuItem>
        </Menu>
      )}
      {keeping && <KeepSetupDialog onClose={() => setKeeping(false)} />}
    </>
  )
}

function sameRegions(a: Setup, b: Setup): boolean {
  const content = ({ regions }: Setup) =>
    JSON.stringify(
      regions.map(({ role, name, bounds, focus, proportion, outline }) => [
        role,
        name,
        bounds,
        focus,
        proportion,
        outline,
      ]),
    )
  return content(a) === content(b)
}

const inUseWords = (changed: boolean) => (changed ? wording.inUseChangedHereChoose : wording.inUse)
