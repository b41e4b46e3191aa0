'use client'

import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import { useCallback } from 'react'

/** What is said with a way to go on from it. */
export interface Offer {
  words: string
  /** What the button does, in a word or two. */
  button: string
  act: () => void
  /** How long it stays; the usual few seconds when nothing is said. */
  staysMs?: number
}

/** Says something at the edge of the screen, with a button that answers it. */
export function useOffer(): (offer: Offer) => void {
  const { enqueueSnackbar, closeSnackbar } = useSnackbar()
  return useCallback(
    ({ words, button, act, staysMs }: Offer) => {
      enqueueSnackbar(words, {
        ...(staysMs !== undefined && { autoHideDuration: staysMs }),
        action: (key) => (
          <Button
            variant="text"
            sx={{ color: '#fff' }}
            onClick={() => {
              closeSnackbar(key)
              act()
            }}
          >
            {button}
          </Button>
        ),
      })
    },
    [enqueueSnackbar, closeSnackbar],
  )
}
