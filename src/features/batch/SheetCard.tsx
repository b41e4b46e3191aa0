'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Link from 'next/link'
import { memo, useEffect, useRef, useState } from 'react'
import type { Finding, Severity } from '@/core/findings/finding'
import type { Highlight } from '@/core/model/highlight'
import type { HighlightId } from '@/core/model/ids'
import { outputLength } from '@/core/time/timeMap'
import { OneLine } from '@/ui/OneLine'
import { TextInPlace } from '@/ui/TextInPlace'
import { formatLength } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { countWords, faultWords } from '@/shared/findingWords'
import { reasonWords } from '@/shared/reasonWords'
import { usePoster } from '@/shared/recordings/usePoster'
import { CardPlayer } from './CardPlayer'
import type { Decisions } from './useDecisions'
import { lookOverHighlight } from './lookOverHighlight'
import { wording } from './wording'

/** A highlight on the contact sheet: its picture, how long it is, what is wrong with it. */
const SEVERITY_COLOURS: Record<Severity, string> = {
  stop: palette.haw,
  warn: palette.strawInk,
  note: palette.inkSoft,
}

const PICTURE_HEIGHT = 160

interface Props {
  highlight: Highlight
  isChosen: boolean
  /** Whether the keys of the sheet act on it. */
  isMarked: boolean
  isPlaying: boolean
  isNaming: boolean
  decisions: Decisions
  onMark: (id: HighlightId) => void
  onToggle: (id: HighlightId) => void
  onPlay: (id: HighlightId) => void
  onNamed: () => void
  onFound: (id: HighlightId, findings: readonly Finding[]) => void
}

export const SheetCard = memo(function SheetCard({
  highlight,
  isChosen,
  isMarked,
  isPlaying,
  isNaming,
  decisions,
  onMark,
  onToggle,
  onPlay,
  onNamed,
  onFound,
}: Props) {
  const { id, name, updatedAt, shapes, draft } = highlight
  const url = useBlobUrl(usePoster(highlight))
  const [findings, setFindings] = useState<Finding[] | null>(null)
  const card = useRef<HTMLDivElement>(null)
  useEffect(() => {
    let live = true
    setFindings(null)
    lookOverHighlight(
      id,
      (found) => {
        if (!live) return
        setFindings(found)
        onFound(id, found)
      },
      () => !live,
    )
    return () => {
      live = false
    }
  }, [id, updatedAt, onFound])
  useEffect(() => {
    if (isMarked) card.current?.scrollIntoView({ block: 'nearest' })
  }, [isMarked])
  const worst = findings?.[0]
  return (
    <Box
      ref={card}
      role="listitem"
      aria-label={name}
      aria-current={isMarked ? 'true' : undefined}
      onPointerDown={() => onMark(id)}
      onFocus={() => onMark(id)}
      sx={{
        border: 1,
        borderColor: isChosen || isMarked ? palette.leaf : 'divider',
        outline: isMarked ? `1px solid ${palette.leaf}` : 'none',
        bgcolor: isChosen ? palette.leafTint : palette.sheet,
        borderRadius: 1,
        overflow: 'hidden',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Box
        component="button"
        type="button"
        aria-label={isPlaying ? wording.stop(name) : wording.play(name)}
        onClick={() => onPlay(id)}
        sx={{
          display: 'grid',
          placeItems: 'center',
          height: PICTURE_HEIGHT + 8,
          bgcolor: palette.mat,
          border: 0,
          p: 0,
          cursor: 'pointer',
          '&:focus-visible': { outline: `2px solid ${palette.leaf}`, outlineOffset: -2 },
        }}
      >
        {url && (
          <Box
            component="img"
            src={url}
            alt=""
            sx={{ gridArea: '1 / 1', height: PICTURE_HEIGHT, maxWidth: '100%', objectFit: 'contain' }}
          />
        )}
        {isPlaying && <CardPlayer highlight={highlight} height={PICTURE_HEIGHT} />}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', p: 1.5, gap: 1, flex: 1 }}>
        <Checkbox
          size="small"
          checked={isChosen}
          onChange={(e) => {
            onToggle(id)
            // Fields keep keys to themselves: after a click they are the sheet’s again.
            if (!e.target.matches(':focus-visible')) e.target.blur()
          }}
          slotProps={{ input: { 'aria-label': `Choose ${name}` } }}
          sx={{ p: 0.5 }}
        />
        <Box sx={{ minWidth: 0, flex: 1 }}>
          {isNaming ? (
            <TextInPlace
              label={wording.title}
              value={name}
              autoFocus
              onSet={(title) => void decisions.rename(highlight, title)}
              onLeft={onNamed}
            />
          ) : (
            <Box
              component={Link}
              href={`/highlight/${encodeURIComponent(id)}`}
              aria-label={wording.openOnTheBench(name)}
              title={name}
              sx={{ color: palette.ink, textDecoration: 'none', '&:hover': { textDecoration: 'underline' } }}
            >
              <OneLine>{name}</OneLine>
            </Box>
          )}
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
          {draft && <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>{reasonWords(draft.reasons)}</Box>}
        </Box>
      </Box>
      {draft && (
        <Box sx={{ display: 'flex', borderTop: 1, borderColor: 'divider' }}>
          <Button
            variant="text"
            aria-pressed={draft.isKept}
            aria-label={wording.keepNamed(name)}
            onClick={() => void decisions.keep(highlight)}
            sx={{ flex: 1, ...(draft.isKept && { bgcolor: palette.leafTint, fontWeight: 700 }) }}
          >
            {draft.isKept ? wording.kept : wording.keep}
          </Button>
          <Button
            variant="text"
            aria-label={wording.dropNamed(name)}
            onClick={() => void decisions.drop(highlight)}
            sx={{ flex: 1 }}
          >
            {wording.drop}
          </Button>
        </Box>
      )}
    </Box>
  )
})

function lookedOverWords(findings: readonly Finding[] | null): string {
  if (findings === null) return wording.isLookedOver
  return findings.length === 0 ? wording.nothingFound : countWords(findings.map((f) => f.severity))
}
