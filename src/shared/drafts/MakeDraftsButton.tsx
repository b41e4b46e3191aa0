'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import { MakeDraftsDialog } from './MakeDraftsDialog'
import { wording } from './wording'

export function MakeDraftsButton({ disabled = false }: { disabled?: boolean }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button disabled={disabled} onClick={() => setOpen(true)}>
        {wording.makeDraftsButton}
      </Button>
      {open && <MakeDraftsDialog onClose={() => setOpen(false)} />}
    </>
  )
}
