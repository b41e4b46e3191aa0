'use client'

import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { useRouter } from 'next/navigation'
import { useStore } from 'zustand'
import { copyHighlight } from '@/store/highlights'
import { openBin } from '@/shared/bin/BinButton'
import { SavingNote } from '@/shared/SavingNote'
import { useBenchContext } from './benchContext'
import { wording } from './wording'

/**
 * Says nothing while all is well; says so when changes cannot be written, or when another tab has changed the same
 * highlight.
 */
export function SaveBar({ onReopen }: { onReopen: () => void }) {
  const { session } = useBenchContext()
  const router = useRouter()
  const saving = useStore(session.store, (s) => s.saving)
  const keepAsCopy = async () => {
    const copy = await copyHighlight(session.value, `${session.value.highlight.name} (copy)`.slice(0, 200))
    router.push(`/highlight/${encodeURIComponent(copy.id)}`)
  }
  switch (saving) {
    case 'saved':
    case 'saving':
      return <SavingNote session={session} />
    case 'no-room':
      return (
        <Alert
          severity="error"
          sx={{ borderRadius: 0 }}
          action={<Button onClick={openBin}>{wording.openTheBin}</Button>}
        >
          {wording.theBrowsersStorageIsFull}
        </Alert>
      )
    case 'failed':
      return (
        <Alert severity="error" sx={{ borderRadius: 0 }}>
          {wording.yourChangesCouldNotBe}
        </Alert>
      )
    case 'conflict':
      return (
        <Alert
          severity="warning"
          sx={{ borderRadius: 0 }}
          action={
            <>
              <Button onClick={onReopen} sx={{ mr: 1 }}>
                {wording.takeTheOtherTabs}
              </Button>
              <Button variant="contained" color="primary" onClick={() => void keepAsCopy()}>
                {wording.keepMineAsACopy}
              </Button>
            </>
          }
        >
          {wording.thisHighlightWasChangedIn}
        </Alert>
      )
  }
}
