'use client'

import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { isStorageFull } from '@/store/database'
import { openBin } from './bin/BinButton'
import { wording } from './wording'

const WORDS = wording.theBrowsersStorageIsFull

function OpenBin() {
  return (
    <Button variant="text" sx={{ color: '#fff' }} onClick={openBin}>
      {wording.openTheBin}
    </Button>
  )
}

/** Says so where something was to be kept that there was no room for, and nobody else has said it. */
export function NotKept() {
  const { enqueueSnackbar } = useSnackbar()
  useEffect(() => {
    const told = (error: unknown) => {
      // One by that key is shown at a time.
      if (isStorageFull(error))
        enqueueSnackbar(WORDS, {
          key: wording.notKept,
          preventDuplicate: true,
          variant: 'error',
          autoHideDuration: 20_000,
          action: <OpenBin />,
        })
    }
    const rejected = ({ reason }: PromiseRejectionEvent) => told(reason)
    const failed = ({ error }: ErrorEvent) => told(error)
    window.addEventListener('unhandledrejection', rejected)
    window.addEventListener('error', failed)
    return () => {
      window.removeEventListener('unhandledrejection', rejected)
      window.removeEventListener('error', failed)
    }
  }, [enqueueSnackbar])
  return null
}
