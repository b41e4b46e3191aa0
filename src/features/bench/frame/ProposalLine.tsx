'use client'

import CloseIcon from '@mui/icons-material/Close'
import TuneIcon from '@mui/icons-material/Tune'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Size } from '@/core/geometry/rect'
import { title } from '@/core/model/record'
import { nameForRole, STANDARD_ROLES } from '@/core/model/region'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { Ticket } from '@/ui/Ticket'
import { RectFields } from './RectFields'
import { foundWords, wording } from './wording'

interface ProposalProps {
  /** Which of the list it is, from 0. */
  n: number
  proposal: RegionProposal
  /** The recording's frame, px. */
  size: Size
  onChange: (to: RegionProposal) => void
  onAccept: () => void
  onReject: () => void
}

/** What was found, why, and how sure that is; to be accepted, changed first, or rejected. */
export function ProposalLine({ n, proposal, size, onChange, onAccept, onReject }: ProposalProps) {
  const [ticket, setTicket] = useState<HTMLElement | null>(null)
  const called = proposal.name ?? nameForRole(proposal.role)
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto minmax(0, 1fr) auto auto auto auto',
        alignItems: 'center',
        columnGap: 1.5,
        px: 3,
        minHeight: 32,
        borderTop: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
        fontSize: textSize.note,
      }}
    >
      <RoleBadge role={proposal.role} />
      <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={foundWords(proposal)}>
        <strong>{called}?</strong> {foundWords(proposal)}
      </Box>
      <Box
        title={wording.howSure}
        sx={{ pr: 1, fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}
      >
        {wording.percentSure(proposal.confidence)}
      </Box>
      <Button onClick={onAccept} aria-label={wording.acceptOf(called, n)}>
        {wording.accept}
      </Button>
      <IconButton
        aria-label={wording.changeBefore(called, n)}
        title={wording.changeBefore(called, n)}
        aria-haspopup="dialog"
        onClick={(e) => setTicket(e.currentTarget)}
        sx={{ p: '4px' }}
      >
        <TuneIcon sx={{ fontSize: iconSize.small }} />
      </IconButton>
      <IconButton
        aria-label={wording.rejectOf(called, n)}
        title={wording.rejectedIsNotProposedAgain}
        onClick={onReject}
        sx={{ p: '4px' }}
      >
        <CloseIcon sx={{ fontSize: iconSize.small }} />
      </IconButton>
      {ticket && (
        <ProposalTicket
          proposal={proposal}
          size={size}
          anchor={ticket}
          onChange={onChange}
          onClose={() => setTicket(null)}
        />
      )}
    </Box>
  )
}

/** Role, name and place of what was found, to be put right before it is accepted. */
function ProposalTicket({
  proposal,
  size,
  anchor,
  onChange,
  onClose,
}: Pick<ProposalProps, 'proposal' | 'size' | 'onChange'> & { anchor: HTMLElement; onClose: () => void }) {
  const { role, rect } = proposal
  return (
    <Ticket label={wording.proposedRegion} anchor={anchor} onClose={onClose} gap={2}>
      <TextField
        select
        size="small"
        label={wording.role}
        value={role}
        onChange={(e) => onChange({ ...proposal, role: e.target.value })}
      >
        {[...new Set([...STANDARD_ROLES, role])].map((other) => (
          <MenuItem key={other} value={other}>
            {nameForRole(other)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        size="small"
        label={wording.name}
        defaultValue={proposal.name ?? nameForRole(role)}
        key={role}
        onBlur={(e) => {
          const named = title.safeParse(e.target.value)
          if (named.success && named.data !== nameForRole(role)) onChange({ ...proposal, name: named.data })
        }}
      />
      <RectFields
        rect={rect}
        frame={size}
        of={nameForRole(role)}
        onSet={(part) => onChange({ ...proposal, rect: toEvenPixels(toFractions({ ...rect, ...part }, size), size) })}
      />
    </Ticket>
  )
}
