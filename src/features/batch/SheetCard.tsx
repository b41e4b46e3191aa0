'use client'

import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import Link from 'next/link'
import { memo, useEffect, useState } from 'react'
import type { Finding, Severity } from '@/core/findings/finding'
import type { Highlight } from '@/core/model/highlight'
import type { HighlightId } from '@/core/model/ids'
import { outputLength } from '@/core/time/timeMap'
import { OneLine } from '@/ui/OneLine'
import { formatLength } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { countWords, faultWords } from '@/shared/findingWords'
import { usePoster } from '@/shared/recordings/usePoster'
import { lookOverHighlight } from './lookOverHighlight'
import { wording } from './wording'

/** A highlight on the contact sheet: its picture, how long it is, what is wrong with it. */
const SEVERITY_COLOURS: Record<Severity, string> = {
  stop: palette.haw,
  warn: palette.strawInk,
  note: palette.inkSoft,
}

export const SheetCard = memo(function SheetCard({
  highlight,
  chosen,
  onToggle,
}: {
  highlight: Highlight
  chosen: boolean
  onToggle: (id: HighlightId) => void
}) {
  const { id, name, updatedAt, shapes } = highlight
  const url = useBlobUrl(usePoster(highlight))
  const [findings, setFindings] = useState<Finding[] | null>(null)
  useEffect(() => {
    let live = true
    setFindings(null)
    lookOverHighlight(
      id,
      (found) => live && setFindings(found),
      () => !live,
    )
    return () => {
      live = false
    }
  }, [id, updatedAt])
  const worst = findings?.[0]
  return (
    <Box
      role="listitem"
      aria-label={name}
      sx={{
        border: 1,
        borderColor: chosen ? palette.leaf : 'divider',
        bgcolor: chosen ? palette.leafTint : palette.sheet,
        borderRadius: 1,
        overflow: 'hidden',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box
        component={Link}
        href={`/highlight/${encodeURIComponent(id)}`}
        aria-label={wording.openOnTheBench(name)}
        sx={{ display: 'grid', placeItems: 'center', height: 168, bgcolor: palette.mat }}
      >
        {url && <Box component="img" src={url} alt="" sx={{ height: 160, maxWidth: '100%', objectFit: 'contain' }} />}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', p: 1.5, gap: 1 }}>
        <Checkbox
          size="small"
          checked={chosen}
          onChange={() => onToggle(id)}
          slotProps={{ input: { 'aria-label': `Choose ${name}` } }}
          sx={{ p: 0.5 }}
        />
        <Box sx={{ minWidth: 0 }}>
          <OneLine>{name}</OneLine>
          <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft }}>
            {formatLength(outputLength(highlight))} · {shapes.map((s) => s.id).join(', ')}
          </Box>
          <Box
            sx={{
              fontSize: textSize.note,
              mt: 0.5,
              color: SEVERITY_COLOURS[worst?.severity ?? 'note'],
            }}
            title={findings?.map((f) => faultWords(f.fault)).join('\n')}
          >
            {lookedOverWords(findings)}
          </Box>
        </Box>
      </Box>
    </Box>
  )
})

function lookedOverWords(findings: readonly Finding[] | null): string {
  if (findings === null) return wording.isLookedOver
  return findings.length === 0 ? wording.nothingFound : countWords(findings.map((f) => f.severity))
}
