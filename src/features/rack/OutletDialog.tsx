'use client'

import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Outlet, Zone } from '@/core/model/outlet'
import { title } from '@/core/model/record'
import { ownShape } from '@/core/model/shape'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { changeKept, keep, type Unstamped } from '@/store/rack'
import { PercentField } from '@/ui/PercentField'
import { formatSize } from '@/ui/format'
import { NumberField } from '@/ui/NumberField'
import { iconSize, palette, textSize } from '@/ui/theme'
import { FormDialog } from './FormDialog'
import { ZoneFields } from './ZoneFields'
import { wording } from './wording'

const MEGABYTE = 1_000_000
const PLAIN: Unstamped<'outlet'> = {
  name: wording.newOutlet,
  tags: [],
  shape: { id: 'tall', width: 1080, height: 1920 },
  longestMicros: 60 * MICROS_PER_SECOND,
  largestBytes: null,
  zones: [],
  targetLufs: -14,
  mostPeakDb: -1,
  mostTitle: 100,
  mostText: 2200,
}

/** Zones keep inside the shape: what is set of one pushes its other side. */
function inside({ name, rect }: Zone): Zone {
  const x = Math.min(0.99, Math.max(0, rect.x))
  const y = Math.min(0.99, Math.max(0, rect.y))
  return {
    name,
    rect: {
      x,
      y,
      width: Math.min(1 - x, Math.max(0.01, rect.width)),
      height: Math.min(1 - y, Math.max(0.01, rect.height)),
    },
  }
}

const SIDES = [
  ['x', 'from the left'],
  ['y', 'from the top'],
  ['width', 'wide'],
  ['height', 'high'],
] as const

/** Makes an outlet, or changes one that is kept: its shape, its limits, and what it lays over the picture. */
export function OutletDialog({ outlet, onClose }: { outlet: Outlet | null; onClose: () => void }) {
  const [draft, setDraft] = useState<Unstamped<'outlet'>>(outlet ?? PLAIN)
  const set = (change: Partial<Unstamped<'outlet'>>) => setDraft({ ...draft, ...change })
  const named = title.safeParse(draft.name)
  const setZone = (n: number, change: Partial<Zone>) =>
    set({ zones: draft.zones.map((z, i) => (i === n ? inside({ ...z, ...change }) : z)) })
  const setSide = (side: 'width' | 'height', value: number) => {
    const made = ownShape(side === 'width' ? value : draft.shape.width, side === 'height' ? value : draft.shape.height)
    if (made) set({ shape: made.shape })
  }
  const zonesNamed = draft.zones.every((z) => title.safeParse(z.name).success)
  const save = async () => {
    const content = { ...draft, name: named.data ?? draft.name }
    if (outlet) await changeKept('outlet', outlet.id, content)
    else await keep('outlet', content)
    onClose()
  }
  return (
    <FormDialog
      title={outlet ? wording.change(outlet.name) : wording.newOutlet}
      button={outlet ? wording.keepChanges : wording.makeOutlet}
      ready={named.success && zonesNamed}
      onSave={() => void save()}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 5 }}>
        <Box sx={{ display: 'grid', rowGap: 3, alignContent: 'start' }}>
          <TextField
            size="small"
            autoFocus
            label={wording.name}
            value={draft.name}
            error={!named.success}
            onChange={(e) => set({ name: e.target.value })}
            onFocus={(e) => e.target.select()}
          />
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: 'auto auto',
              justifyContent: 'start',
              columnGap: 3,
              rowGap: 1.5,
              alignItems: 'center',
            }}
          >
            {(['width', 'height'] as const).map((side) => (
              <NumberField
                key={side}
                label={side === 'width' ? wording.width : wording.height}
                unit="px"
                value={draft.shape[side]}
                least={64}
                most={3840}
                step={2}
                onSet={(value) => setSide(side, value)}
              />
            ))}
            <NumberField
              label={wording.longest0ForAny}
              unit="s"
              value={(draft.longestMicros ?? 0) / MICROS_PER_SECOND}
              least={0}
              most={36_000}
              step={1}
              onSet={(s) => set({ longestMicros: s === 0 ? null : Math.round(s * MICROS_PER_SECOND) })}
            />
            <NumberField
              label={wording.titleAtMost}
              unit={wording.letters}
              value={draft.mostTitle}
              least={1}
              most={300}
              step={10}
              onSet={(n) => set({ mostTitle: Math.round(n) })}
            />
            <NumberField
              label={wording.textAtMost}
              unit={wording.letters}
              value={draft.mostText}
              least={1}
              most={5000}
              step={100}
              onSet={(n) => set({ mostText: Math.round(n) })}
            />
            <NumberField
              label={wording.largest0ForAny}
              unit={wording.mb}
              value={(draft.largestBytes ?? 0) / MEGABYTE}
              least={0}
              most={100_000}
              step={10}
              onSet={(mb) => set({ largestBytes: mb === 0 ? null : Math.round(mb * MEGABYTE) })}
            />
            <NumberField
              label={wording.loudness}
              unit={wording.lufs}
              value={draft.targetLufs}
              least={-40}
              most={-5}
              step={1}
              onSet={(targetLufs) => set({ targetLufs })}
            />
            <NumberField
              label={wording.highestPeak}
              unit={wording.dBTP}
              value={draft.mostPeakDb}
              least={-12}
              most={0}
              step={0.5}
              decimals={1}
              onSet={(mostPeakDb) => set({ mostPeakDb })}
            />
          </Box>
        </Box>
        <Box sx={{ textAlign: 'center', fontSize: textSize.note, color: palette.inkSoft }}>
          <ZoneFields outlet={draft} height={230} onZone={(n, rect) => setZone(n, { rect })} />
          {formatSize(draft.shape)}
        </Box>
      </Box>
      <Box role="group" aria-label={wording.whatItCovers} sx={{ display: 'grid', rowGap: 2 }}>
        {draft.zones.map((zone, n) => (
          <Box
            key={n}
            sx={{
              display: 'grid',
              gridTemplateColumns: '150px repeat(4, minmax(0, 1fr)) auto',
              columnGap: 2,
              alignItems: 'center',
            }}
          >
            <TextField
              size="small"
              label={wording.covers}
              value={zone.name}
              error={!title.safeParse(zone.name).success}
              onChange={(e) => setZone(n, { name: e.target.value })}
            />
            {SIDES.map(([side, words]) => (
              <Box key={side} sx={{ display: 'grid' }}>
                <PercentField
                  label={words}
                  value={zone.rect[side]}
                  least={0}
                  most={100}
                  step={1}
                  onSet={(share) => setZone(n, { rect: { ...zone.rect, [side]: share } })}
                />
              </Box>
            ))}
            <IconButton
              size="small"
              aria-label={wording.removeOfName(zone.name)}
              onClick={() => set({ zones: draft.zones.filter((_, i) => i !== n) })}
            >
              <DeleteOutlineIcon sx={{ fontSize: iconSize.medium }} />
            </IconButton>
          </Box>
        ))}
        <Box>
          <Button
            disabled={draft.zones.length >= 20}
            onClick={() =>
              set({
                zones: [
                  ...draft.zones,
                  { name: wording.zoneOfCount(draft.zones.length), rect: { x: 0, y: 0.85, width: 1, height: 0.15 } },
                ],
              })
            }
          >
            {wording.addZone}
          </Button>
        </Box>
      </Box>
    </FormDialog>
  )
}
