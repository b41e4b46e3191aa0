'use client'

import Box from '@mui/material/Box'
import { useEffect, useState } from 'react'
import { useStore } from 'zustand'
import type { Session } from '@/store/session'
import { palette, textSize } from '@/ui/theme'
import { wording } from './wording'

/** Writing usually takes a few hundredths of a second and is not worth a word; what takes longer than this is told. */
const SHOWN_AFTER_MS = 800

/**
 * Says that something is being written, when it takes long. It lies over the page, so that nothing moves away under
 * the pointer.
 */
export function SavingNote<T extends object>({ session }: { session: Session<T> }) {
  const saving = useStore(session.store, (s) => s.saving)
  const isSaving = saving === 'saving'
  const [isLong, setIsLong] = useState(false)
  useEffect(() => {
    if (!isSaving) return
    const timer = setTimeout(() => setIsLong(true), SHOWN_AFTER_MS)
    return () => {
      clearTimeout(timer)
      setIsLong(false)
    }
  }, [isSaving])
  return (
    <Box
      aria-live="polite"
      data-saving={saving}
      sx={{
        position: 'fixed',
        left: '50%',
        bottom: 72,
        transform: 'translateX(-50%)',
        zIndex: 'snackbar',
        pointerEvents: 'none',
      }}
    >
      {isLong && (
        <Box
          sx={{ px: 4, py: 2, borderRadius: 1, bgcolor: palette.ink, color: palette.paper, fontSize: textSize.body }}
        >
          {wording.saving}
        </Box>
      )}
    </Box>
  )
}
