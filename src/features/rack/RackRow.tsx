'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Link from 'next/link'
import type { ReactNode } from 'react'
import type { HighlightId } from '@/core/model/ids'
import { title } from '@/core/model/record'
import { tagsFrom } from '@/ui/tags'
import { palette, textSize } from '@/ui/theme'
import { TextInPlace } from '@/ui/TextInPlace'
import { useOffer } from '@/ui/useOffer'
import { wording } from './wording'

/** So many highlights are named, the rest counted. */
const NAMED_USES = 3

interface RackRowProps {
  name: string
  tags: readonly string[]
  diagram: ReactNode
  /** What else is to be said of it, a line each. */
  children?: ReactNode
  /** Highlights that use it; undefined where that is not followed. */
  uses?: readonly { highlightId: HighlightId; name: string }[]
  onChange: (change: { name?: string; tags?: string[] }) => void
  onExport: () => void
  onDuplicate: () => void
  /** Into the bin, or out of it again. */
  onBin: (deleted: boolean) => void
  /** Said when it has been thrown away. */
  binned: string
  onEdit?: () => void
}

/** One kept thing: drawn, named and tagged in place, and what can be done with it. */
export function RackRow({
  name,
  tags,
  diagram,
  children,
  uses,
  onChange,
  onExport,
  onDuplicate,
  onBin,
  binned,
  onEdit,
}: RackRowProps) {
  const offer = useOffer()
  const bin = () => {
    onBin(true)
    offer({ words: binned, button: wording.putBack, act: () => onBin(false) })
  }
  return (
    <Box
      role="listitem"
      aria-label={name}
      sx={{
        display: 'grid',
        gridTemplateColumns: '144px minmax(0, 1fr) auto',
        columnGap: 5,
        alignItems: 'center',
        py: 3,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ justifySelf: 'center' }}>{diagram}</Box>
      <Box sx={{ minWidth: 0, fontSize: textSize.note, color: palette.inkSoft, display: 'grid', rowGap: 1 }}>
        <TextInPlace
          label={wording.nameOf(name)}
          value={name}
          strong
          onSet={(typed) => {
            const named = title.safeParse(typed)
            if (named.success) onChange({ name: named.data })
          }}
        />
        <TextInPlace
          label={wording.tagsOf(name)}
          value={tags.join(', ')}
          placeholder={wording.noTags}
          onSet={(typed) => onChange({ tags: tagsFrom(typed) })}
        />
        {children}
        {uses && (
          <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {uses.length === 0 ? wording.notUsedYet : wording.usedIn}
            {uses.slice(0, NAMED_USES).map((use, n) => (
              <span key={use.highlightId}>
                {n > 0 && ', '}
                <Box
                  component={Link}
                  href={`/highlight/${encodeURIComponent(use.highlightId)}`}
                  sx={{ color: palette.leaf }}
                >
                  {use.name}
                </Box>
              </span>
            ))}
            {uses.length > NAMED_USES && wording.andMore(uses.length, NAMED_USES)}
          </Box>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, justifyContent: 'flex-end' }}>
        {onEdit && (
          <Button onClick={onEdit} aria-label={wording.change(name)}>
            {wording.changeButton}
          </Button>
        )}
        <Button onClick={onDuplicate} aria-label={wording.duplicateOfName(name)}>
          {wording.duplicate}
        </Button>
        <Button onClick={onExport} aria-label={wording.exportItOfName(name)}>
          {wording.exportIt}
        </Button>
        <Button onClick={bin} aria-label={wording.removeOfName(name)}>
          {wording.remove}
        </Button>
      </Box>
    </Box>
  )
}

/** One line of a row, cut where it is too long. */
export function RowLine({ children }: { children: ReactNode }) {
  return <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{children}</Box>
}
