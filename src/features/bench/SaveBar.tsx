'use client'

import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { useRouter } from 'next/navigation'
import { useStore } from 'zustand'
import { copyHighlight } from '@/store/highlights'
import { openBin } from '@/shared/bin/BinButton'
import { SavingNote } from '@/shared/SavingNote'
import { useBenchContext } from './benchContext'

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
        <Alert severity="error" sx={{ borderRadius: 0 }} action={<Button onClick={openBin}>Open the bin</Button>}>
          The browser’s storage is full: your changes are only in this tab. Throw something away and empty the bin;
          saving is tried again.
        </Alert>
      )
    case 'failed':
      return (
        <Alert severity="error" sx={{ borderRadius: 0 }}>
          Your changes could not be saved yet; they are in this tab, and saving is tried again.
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
                Take the other tab’s
              </Button>
              <Button variant="contained" color="primary" onClick={() => void keepAsCopy()}>
                Keep mine as a copy
              </Button>
            </>
          }
        >
          This highlight was changed in another tab. What you did here is not saved, and nothing was written over.
        </Alert>
      )
  }
}
