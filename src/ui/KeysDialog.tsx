'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { fonts } from './theme'

/** A screen's keys with what each does. */
export function KeysDialog({
  keys,
  open,
  onClose,
}: {
  keys: readonly { keys: string; does: string }[]
  open: boolean
  onClose: () => void
}) {
  return (
    <Dialog open={open} onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle sx={{ fontSize: 16, fontWeight: 700 }}>Keys</DialogTitle>
      <DialogContent>
        <Box
          component="dl"
          sx={{ m: 0, display: 'grid', gridTemplateColumns: '120px 1fr', rowGap: 2, columnGap: 4, fontSize: 13 }}
        >
          {keys.map(({ keys: k, does }) => (
            <Box key={k} sx={{ display: 'contents' }}>
              <Box component="dt" sx={{ fontFamily: fonts.numbers, fontSize: 12 }}>
                {k}
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {does}
              </Box>
            </Box>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}
