'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { FormEvent, ReactNode } from 'react'
import { wording } from './wording'

interface FormDialogProps {
  title: string
  /** What saving is called here. */
  button: string
  ready: boolean
  problem?: string | null
  onSave: () => void
  onClose: () => void
  children: ReactNode
}

/** Fields one under the other, saved by the button or Enter. */
export function FormDialog({ title, button, ready, problem, onSave, onClose, children }: FormDialogProps) {
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (ready) onSave()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <Box component="form" onSubmit={submit}>
        <DialogTitle>{title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', rowGap: 4, '&&': { pt: 2 } }}>
          {problem && <Alert severity="error">{problem}</Alert>}
          {children}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{wording.cancel}</Button>
          <Button type="submit" variant="contained" color="primary" disabled={!ready}>
            {button}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  )
}
