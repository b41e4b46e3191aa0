'use client'

import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { openBin } from '@/shared/bin/BinButton'
import { CopyOffer } from '@/shared/recordings/CopyOffer'
import type { Problem } from './useAdding'
import { wording } from './wording'

/** What went wrong with a file that was added, and what can be done about it here. */
export function ProblemAlert({
  problem: { text, isNoRoom, curable },
  onCopied,
  onClose,
}: {
  problem: Problem
  onCopied: (copy: File, fromHdr: boolean) => Promise<unknown>
  onClose: () => void
}) {
  return (
    <Alert severity="error" onClose={onClose} sx={{ borderRadius: 0, borderBottom: 1, borderColor: 'divider' }}>
      {text} {isNoRoom && <Button onClick={openBin}>{wording.openTheBin}</Button>}
      {curable && <CopyOffer file={curable} onCopied={(copy, fromHdr) => onCopied(copy, fromHdr).then(onClose)} />}
    </Alert>
  )
}
