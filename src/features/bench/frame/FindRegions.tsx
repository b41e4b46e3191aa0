'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { isSure } from '@/core/detect/regions/proposal'
import { ProgressLine } from '@/ui/ProgressLine'
import { palette, textSize } from '@/ui/theme'
import { useBenchContext, useCalmParts } from '../benchContext'
import { acceptProposals, asRegions, boundsOf, rejectProposal, uncontested } from '@/edit/regions'
import { acceptAllFound, openProposals } from '@/shared/looks/acceptFound'
import { ProposalLine } from './ProposalLine'
import { wording } from './wording'
import { changeProposal, lookAt, stopLooking } from '@/shared/looks/looks'
import { useLook, useScene } from './useLook'

/** Looks for regions in the footage, and lists what was found until it is accepted. */
export function FindRegions() {
  const { session, files } = useBenchContext()
  const { recording, setup, passage } = useCalmParts()
  const scene = useScene()
  const look = useLook()
  const find = () => {
    const file = files.get(recording.id)
    if (file) void lookAt(scene, file, session.value)
  }
  const size = recording.video
  const seen = look?.kind === 'seen' && look.asked ? look : null
  const open = seen ? openProposals(seen.look.proposals, setup, size) : []
  const sure = uncontested(
    setup,
    open.filter(isSure).map((p) => ({ ...p, bounds: boundsOf(p, size) })),
  )
  const acceptAll = () =>
    void acceptAllFound(session, { setupId: setup.id, passageId: passage.id, size, proposals: sure })
  if (look?.kind === 'looking')
    return (
      <Box sx={{ px: 3, minHeight: 36, display: 'grid', alignItems: 'center' }}>
        <ProgressLine
          words={wording.lookingAtTheFootage}
          share={look.share}
          measure={wording.lookedAt}
          stop={wording.stop}
          onStop={stopLooking}
        />
      </Box>
    )
  return (
    <Box component="section" aria-label={wording.proposedRegions}>
      {open.map((p, n) => (
        <ProposalLine
          key={n}
          n={n}
          proposal={p}
          size={size}
          onChange={(to) => changeProposal(scene, p, to)}
          onAccept={() => acceptProposals(session, { setupId: setup.id, proposals: asRegions([p], size) })}
          onReject={() =>
            asRegions([p], size).forEach((proposal) => rejectProposal(session, { setupId: setup.id, proposal }))
          }
        />
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
