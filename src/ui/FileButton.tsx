'use client'

import Button from '@mui/material/Button'
import { useRef, type ReactNode } from 'react'

/** A button that asks for files; `label` is what they are for, `accept` which kinds are offered. */
export function FileButton({
  label,
  accept,
  multiple = false,
  onChosen,
  children,
}: {
  label: string
  accept: string
  multiple?: boolean
  onChosen: (files: readonly File[]) => void
  children: ReactNode
}) {
  const chooser = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button onClick={() => chooser.current?.click()}>{children}</Button>
      <input
        ref={chooser}
        type="file"
        hidden
        accept={accept}
        multiple={multiple}
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          // The same file can be chosen again, once it has been mended.
          e.target.value = ''
          if (files.length > 0) onChosen(files)
        }}
      />
    </>
  )
}
