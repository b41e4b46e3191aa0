'use client'

import Box from '@mui/material/Box'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Highlight } from '@/core/model/highlight'
import { quietly } from '@/diagnostics/note'
import { Player } from '@/media/playback/player'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { PreviewCopyKeeper } from '@/shared/previewCopies/previewCopyKeeper'
import { loadEdit } from '@/store/highlights'
import { filesOfEdit } from '@/store/recordings'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import { wording } from './wording'

/** A highlight in its first shape, played with its sound over its picture. */
export function CardPlayer({ highlight, height }: { highlight: Highlight; height: number }) {
  const [player, setPlayer] = useState<Player | null>(null)
  useEffect(() => {
    const made = new Player()
    setPlayer(made)
    return () => made.close()
  }, [])
  return player && <Playing player={player} highlight={highlight} height={height} />
}

function Playing({ player, highlight, height }: { player: Player; highlight: Highlight; height: number }) {
  const host = useRef<HTMLDivElement>(null)
  const [shape] = highlight.shapes
  const target = useMemo<PreviewTarget | null>(() => (shape ? { kind: 'shape', shape } : null), [shape])
  const { id, updatedAt } = highlight
  useEffect(() => {
    let live = true
    let copies: PreviewCopyKeeper | null = null
    const open = async () => {
      const loaded = await loadEdit(id)
      if (!loaded.ok) return
      const { files } = await filesOfEdit(loaded.edit)
      if (!live || !(await player.open(loaded.edit, files)).ok || !live) return
      copies = new PreviewCopyKeeper({ edit: () => loaded.edit, files, player })
      await player.play()
    }
    open().catch(quietly('playing a highlight on the contact sheet'))
    return () => {
      live = false
      copies?.close()
      player.pause()
    }
    // Anew when it has been changed: a longer end is heard at once.
  }, [player, id, updatedAt])
  usePreviewCanvas(player, host, target, wording.playing(highlight.name))
  const width = shape ? (height * shape.width) / shape.height : height
  return <Box ref={host} sx={{ gridArea: '1 / 1', position: 'relative', height, width, maxWidth: '100%' }} />
}
