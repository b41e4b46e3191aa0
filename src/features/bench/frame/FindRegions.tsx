'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { isSure, type RegionProposal } from '@/core/detect/regions/proposal'
import type { Size } from '@/core/geometry/rect'
import type { Region } from '@/core/model/region'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, palette, textSize } from '@/ui/theme'
import { nameForRole } from '@/core/model/region'
import { useBenchContext, useParts } from '../benchContext'
import { acceptProposals, uncontested } from '@/edit/regions'
import { acceptAllFound, asRegions, boundsOf } from './acceptFound'
import { foundWords, wording } from './wording'
import { lookAt, stopLooking } from '@/shared/looks/looks'
import { useLook } from './useLook'

/** Proposals that are not regions already. */
export function openProposals(
  proposals: readonly RegionProposal[],
  regions: readonly Region[],
  size: Size,
): RegionProposal[] {
  return proposals.filter((p) => {
    const b = boundsOf(p, size)
    return !regions.some(
      (r) =>
        r.role === p.role &&
        (['x', 'y', 'width', 'height'] as const).every((k) => Math.abs(r.bounds[k] - b[k]) < 0.003),
    )
  })
}

/** Looks for regions in the footage, and lists what was found until it is accepted. */
export function FindRegions() {
  const { session, files } = useBenchContext()
  const { recording, setup, passage } = useParts()
  const look = useLook()
  const find = () => {
    const file = files.get(recording.id)
    if (file) void lookAt(recording, file, session.value)
  }
  const size = recording.video
  const seen = look?.kind === 'seen' && look.asked ? look : null
  const open = seen ? openProposals(seen.look.proposals, setup.regions, size) : []
  const sure = uncontested(
    setup,
    open.filter(isSure).map((p) => ({ ...p, bounds: boundsOf(p, size) })),
  )
  const accept = (p: RegionProposal) => acceptProposals(session, { setupId: setup.id, proposals: asRegions([p], size) })
  const acceptAll = () =>
    void acceptAllFound(session, { setupId: setup.id, passageId: passage.id, size, proposals: sure })
  if (look?.kind === 'looking')
    return (
      <Box
        role="status"
        sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 3, minHeight: 36, fontSize: textSize.note }}
      >
        {wording.lookingAtTheFootage}
        <LinearProgress
          variant="determinate"
          value={look.share * 100}
          aria-label={wording.lookedAt}
          sx={{ flex: 1, height: 4 }}
        />
        <Button onClick={stopLooking}>{wording.stop}</Button>
      </Box>
    )
  return (
    <Box component="section" aria-label={wording.proposedRegions}>
      {open.map((p, n) => (
        <Box
          key={n}
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto minmax(0, 1fr) auto auto',
            alignItems: 'center',
            columnGap: 2,
            px: 3,
            minHeight: 32,
            borderTop: 1,
            borderColor: 'divider',
            bgcolor: 'background.paper',
            fontSize: textSize.note,
          }}
        >
          <RoleBadge role={p.role} />
          <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={foundWords(p)}>
            <strong>{nameForRole(p.role)}?</strong> {foundWords(p)}
          </Box>
          <Box
            title={wording.howSureOf1}
            sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}
          >
            {p.confidence.toFixed(2)}
          </Box>
          <Button onClick={() => accept(p)} aria-label={wording.acceptOfNameForRole(nameForRole(p.role), n)}>
            {wording.accept}
          </Button>
        </Box>
      ))}
      {look?.kind === 'failed' && (
        <Alert severity="warning" sx={{ borderRadius: 0 }}>
          {wording.theFootageCouldNotBe(look.detail)}
        </Alert>
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 3, py: 1.5, borderTop: 1, borderColor: 'divider' }}>
        <Button onClick={find}>{seen ? wording.lookAgain : wording.findRegions}</Button>
        {sure.length > 1 && (
          <Button variant="contained" color="primary" onClick={acceptAll}>
            {wording.acceptAll(sure.length)}
          </Button>
        )}
        {seen && open.length === 0 && (
          <Box role="status" sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
            {seen.look.proposals.length === 0 ? wording.nothingStandsOutNoBars : wording.allThatWasFoundIs}
          </Box>
        )}
      </Box>
    </Box>
  )
}
