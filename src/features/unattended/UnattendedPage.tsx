'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef } from 'react'
import { fileSafe } from '@/core/output/fileName'
import { palette, textSize } from '@/ui/theme'
import { Unattended, type Told } from './unattended'
import { wording } from './wording'

declare global {
  interface Window {
    /** What a script calls; see `unattended/` in the repository. */
    brimbleUnattended?: {
      plan: (wish: unknown) => ReturnType<Unattended['plan']>
      alone: (at: number) => string
      fileSafe: (name: string) => string
      /** `mediaIds`: whose bytes the files of the second input are, in their order. */
      render: (at: number, ids: string[], mediaIds: string[]) => Promise<void>
      download: (id: string, name: string) => Promise<void>
      forget: (id: string) => Promise<void>
      cancel: () => void
    }
    /** The script's side of the telling. */
    brimbleTold?: (told: Told) => Promise<void>
  }
}

/** A page without an interface: a script fills its inputs and calls what it offers. */
export function UnattendedPage() {
  const highlights = useRef<HTMLInputElement>(null)
  const media = useRef<HTMLInputElement>(null)
  useEffect(() => {
    const unattended = new Unattended()
    window.brimbleUnattended = {
      plan: (wish) => unattended.plan([...(highlights.current?.files ?? [])], wish),
      alone: (at) => unattended.alone(at),
      fileSafe,
      render: (at, ids, mediaIds) => {
        const files = [...(media.current?.files ?? [])]
        const bytes = new Map(mediaIds.flatMap((id, n) => (files[n] ? [[id, files[n]] as const] : [])))
        return unattended.render(at, ids, bytes, async (told) => window.brimbleTold?.(told))
      },
      download: (id, name) => unattended.download(id, name),
      forget: (id) => unattended.forget(id),
      cancel: () => unattended.cancel(),
    }
    return () => {
      delete window.brimbleUnattended
    }
  }, [])
  return (
    <Box component="main" sx={{ p: 8, maxWidth: 560, color: palette.inkSoft, fontSize: textSize.body }}>
      <p>{wording.thisPageRendersForScripts}</p>
      <input ref={highlights} type="file" multiple hidden aria-label={wording.highlights} />
      <input ref={media} type="file" multiple hidden aria-label={wording.recordings} />
    </Box>
  )
}
