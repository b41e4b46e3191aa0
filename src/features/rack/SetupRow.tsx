'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Link from 'next/link'
import { title } from '@/core/model/record'
import type { Setup } from '@/core/model/setup'
import { binSetup, changeSetup, type SetupUse } from '@/store/setups'
import { SetupDiagram } from '@/ui/SetupDiagram'
import { tagsFrom } from '@/ui/tags'
import { palette } from '@/ui/theme'
import { TextInPlace } from '@/ui/TextInPlace'
import { useOffer } from '@/ui/useOffer'

/** So many highlights are named, the rest counted. */
const NAMED_USES = 3

/** A kept setup: drawn, named and tagged in place, and where it is used. */
export function SetupRow({ setup, uses, onExport }: { setup: Setup; uses: readonly SetupUse[]; onExport: () => void }) {
  const offer = useOffer()
  const { id, name, tags, regions, fingerprint } = setup
  const bin = async () => {
    await binSetup(id, true)
    offer({ words: `“${name}” is in the bin. Highlights keep their regions.`, button: 'Put back', act: () => void binSetup(id, false) })
  }
  return (
    <Box role="listitem" aria-label={name} sx={{ display: 'grid', gridTemplateColumns: '144px minmax(0, 1fr) auto', columnGap: 5, alignItems: 'center', py: 3, borderTop: 1, borderColor: 'divider' }}>
      <SetupDiagram regions={regions} width={144} />
      <Box sx={{ minWidth: 0, fontSize: 12.5, color: palette.inkSoft, display: 'grid', rowGap: 1 }}>
        <TextInPlace
          label={`Name of ${name}`}
          value={name}
          strong
          onSet={(typed) => {
            const named = title.safeParse(typed)
            if (named.success) void changeSetup(id, { name: named.data })
          }}
        />
        <TextInPlace label={`Tags of ${name}`} value={tags.join(', ')} placeholder="no tags" onSet={(typed) => void changeSetup(id, { tags: tagsFrom(typed) })} />
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {regions.map((r) => r.name).join(', ')} · {fingerprint ? 'recognised by itself' : 'not recognised by itself'}
        </Box>
        <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {uses.length === 0 ? 'Not used yet' : 'Used in '}
          {uses.slice(0, NAMED_USES).map((use, n) => (
            <span key={use.highlightId}>
              {n > 0 && ', '}
              <Box component={Link} href={`/highlight/${encodeURIComponent(use.highlightId)}`} sx={{ color: palette.leaf }}>
                {use.name}
              </Box>
            </span>
          ))}
          {uses.length > NAMED_USES && ` and ${uses.length - NAMED_USES} more`}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <Button onClick={onExport} aria-label={`Export ${name}`}>
          Export
        </Button>
        <Button onClick={() => void bin()} aria-label={`Remove ${name}`}>
          Remove
        </Button>
      </Box>
    </Box>
  )
}
