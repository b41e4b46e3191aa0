'use client'

import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { isStorageFull } from '@/store/database'

const WORDS = 'The browser’s storage is full: what you just did could not be kept. Save and remove older files in the Outbox, or take recordings off the Shelf, and do it again.'

/** Says so where something was to be kept that there was no room for, and nobody else has said it. */
export function NotKept() {
  const { enqueueSnackbar } = useSnackbar()
  useEffect(() => {
    const told = (error: unknown) => {
      // One by that key is shown at a time.
      if (isStorageFull(error)) enqueueSnackbar(WORDS, { key: 'not kept', preventDuplicate: true, variant: 'error', autoHideDuration: 20_000 })
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
