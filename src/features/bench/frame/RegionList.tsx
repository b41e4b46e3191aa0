'use client'

import AddIcon from '@mui/icons-material/Add'
import LockIcon from '@mui/icons-material/Lock'
import TuneIcon from '@mui/icons-material/Tune'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { memo, useMemo, useState } from 'react'
import { placePanels } from '@/core/compose/placePanels'
import { blowUp } from '@/core/compose/panelCrop'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import { newId, type RegionId, type SetupId } from '@/core/model/ids'
import { STANDARD_ROLES, type Region, type Role } from '@/core/model/region'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { useGrowing } from '@/ui/useGrowing'
import { addRegion, confirmRegions, placeRegion, setRegionRole } from '@/edit/regions'
import { nameForRole } from '@/core/model/region'
import { isShifted, regionsIn } from '@/core/compose/regionIn'
import { useBenchContext, useCalmEdit, useCalmParts, usePassage } from '../benchContext'
import { useSelectedRegion } from '../useSelectedRegion'
import { RectFields } from './RectFields'
import { RegionTicket } from './RegionTicket'
import { wording } from './wording'

/** All regions with their pixels, and how far the panels blow them up. The numbers can be typed. */
export function RegionList() {
  const { passage, setup } = useCalmParts()
  const edit = useCalmEdit()
  const regions = useMemo(() => regionsIn(passage, setup.regions), [passage, setup.regions])
  const placed = useMemo(
    () => edit.highlight.shapes.flatMap((shape) => placePanels(edit, shape, passage)),
    [edit, passage],
  )
  const shown = useGrowing(regions.length, 4)
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', containerType: 'inline-size' }}>
      {regions.slice(0, shown).map((region, index) => (
        <RegionLine
          key={region.id}
          region={region}
          index={index}
          count={regions.length}
          worst={Math.max(
            0,
            ...placed.flatMap((p) => (p.region?.id === region.id && p.picture ? [blowUp(p.picture)] : [])),
          )}
        />
      ))}
      {regions.some((r) => r.isGuess) && <Guessed setupId={setup.id} />}
      <AddRegion setupId={setup.id} />
    </Box>
  )
}

/** Says what the question marks mean, and takes them away. */
const Guessed = memo(function Guessed({ setupId }: { setupId: SetupId }) {
  const { session } = useBenchContext()
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 3,
        minHeight: 36,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ flex: 1, fontSize: textSize.note, color: palette.inkSoft }}>{wording.foundByItselfCheck}</Box>
      <Button onClick={() => confirmRegions(session, { setupId })}>{wording.theyAreRight}</Button>
    </Box>
  )
})

/** A button with the roles that a new region can have. */
const AddRegion = memo(function AddRegion({ setupId }: { setupId: SetupId }) {
  const { session, view } = useBenchContext()
  const [menu, setMenu] = useState<HTMLElement | null>(null)
  return (
    <Box sx={{ px: 3, py: 1.5 }}>
      <Button startIcon={<AddIcon />} onClick={(e) => setMenu(e.currentTarget)} aria-haspopup="menu">
        {wording.regionCapital}
      </Button>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        {STANDARD_ROLES.map((role) => (
          <MenuItem
            key={role}
            sx={{ gap: 2 }}
            onClick={() => {
              const id = newId<RegionId>()
              addRegion(session, { id, setupId, role })
              view.setState({ selection: { kind: 'region', id } })
              setMenu(null)
            }}
          >
            <RoleBadge role={role} />
            {nameForRole(role)}
          </MenuItem>
        ))}
      </Menu>
    </Box>
  )
})

/** `worst`: output pixels for each recorded one where it is shown largest; 0 where it is not shown. */
const RegionLine = memo(function RegionLine({
  region,
  index,
  count,
  worst,
}: {
  region: Region
  index: number
  count: number
  worst: number
}) {
  const [ticket, setTicket] = useState<HTMLElement | null>(null)
  const { session, view } = useBenchContext()
  const { recording, passage } = usePassage()
  const selected = useSelectedRegion() === region.id
  const pixels = toEvenPixels(region.bounds, recording.video)
  const set = (part: Partial<Rect>) =>
    placeRegion(
      session,
      passage,
      recording.video,
      region,
      { ...pixels, ...part },
      wording.resize(region.name),
      crypto.randomUUID(),
    )
  return (
    <Box
      onClick={() => view.setState({ selection: { kind: 'region', id: region.id } })}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(44px, 1fr) auto 52px 28px',
        '@container (max-width: 390px)': {
          gridTemplateColumns: 'minmax(44px, 1fr) auto 28px',
          '& > [data-if-wide]': { display: 'none' },
        },
        alignItems: 'center',
        columnGap: 2,
        px: 3,
        minHeight: 32,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: selected ? palette.leafTint : undefined,
      }}
    >
      <RoleSelect
        id={region.id}
        role={region.role}
        name={region.name}
        isGuess={region.isGuess === true}
        onlyHere={isShifted(passage, region.id)}
      />
      <RectFields rect={pixels} frame={recording.video} of={region.name} onSet={set} />
      <Box
        data-if-wide
        title={wording.outputPixelsForEachRecorded}
        sx={{
          fontFamily: fonts.numbers,
          fontSize: textSize.note,
          textAlign: 'right',
          color: worst > 2.5 ? palette.strawInk : palette.inkSoft,
        }}
      >
        {worst === 0 ? wording.unused : `${worst.toFixed(2)}×`}
      </Box>
      <IconButton
        aria-label={wording.moreAbout(region.name)}
        aria-haspopup="dialog"
        onClick={(e) => setTicket(e.currentTarget)}
        sx={{ p: '4px' }}
      >
        {region.locked ? (
          <LockIcon sx={{ fontSize: iconSize.small }} />
        ) : (
          <TuneIcon sx={{ fontSize: iconSize.small }} />
        )}
      </IconButton>
      {ticket && (
        <RegionTicket region={region} index={index} count={count} anchor={ticket} onClose={() => setTicket(null)} />
      )}
    </Box>
  )
})

/**
 * A region's mark and name; pressing it changes its role. Apart from its line, which is drawn anew while the region
 * is dragged.
 */
const RoleSelect = memo(function RoleSelect({
  id,
  role,
  name,
  isGuess,
  onlyHere,
}: {
  id: RegionId
  role: Role
  name: string
  isGuess: boolean
  onlyHere: boolean
}) {
  const { session } = useBenchContext()
  const roles = [...new Set([...STANDARD_ROLES, role])]
  return (
    <Select
      variant="standard"
      disableUnderline
      value={role}
      onChange={(e) => setRegionRole(session, { id, role: e.target.value })}
      inputProps={{ 'aria-label': wording.roleOf(name) }}
      renderValue={() => (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, fontWeight: 600 }}>
          <RoleBadge role={role} />
          <Box
            component="span"
            title={isGuess ? wording.isAGuess : undefined}
            sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}
          >
            {name}
            {isGuess && '?'}
            {onlyHere && wording.hereOnlyAfter}
          </Box>
        </Box>
      )}
    >
      {roles.map((other) => (
        <MenuItem key={other} value={other} sx={{ gap: 2 }}>
          <RoleBadge role={other} />
          {nameForRole(other)}
        </MenuItem>
      ))}
    </Select>
  )
})
