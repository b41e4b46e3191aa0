'use client'

import Box from '@mui/material/Box'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Brand } from '@/core/model/brand'
import { binKept, changeKept, duplicateKept, kept } from '@/store/rack'
import { palette } from '@/ui/theme'
import { BrandDialog } from './BrandDialog'
import { RackRow, RowLine } from './RackRow'
import type { Exporter } from './useRackFiles'
import { wording } from './wording'

export function BrandRows({ onExport }: { onExport: Exporter }) {
  const brands = useLiveQuery(() => kept('brand'))
  const [editing, setEditing] = useState<Brand | null>(null)
  return (
    <>
      {brands?.map((brand) => (
        <RackRow
          key={brand.id}
          name={brand.name}
          tags={brand.tags}
          diagram={<Swatches brand={brand} />}
          onChange={(change) => void changeKept('brand', brand.id, change)}
          onExport={() => onExport({ brand: [brand] }, brand.name)}
          onDuplicate={() => void duplicateKept('brand', brand)}
          onBin={(deleted) => void binKept('brand', brand.id, deleted)}
          binned={wording.isInTheBinWhat(brand.name)}
          onEdit={() => setEditing(brand)}
        >
          <RowLine>
            {wording.titlesInCaptionsIn(brand.handle, brand.fonts.title, brand.fonts.captions)}
            {brand.logo && wording.aLogo}
            {brand.endCard && wording.anEndCard}
          </RowLine>
        </RackRow>
      ))}
      {editing && <BrandDialog brand={editing} onClose={() => setEditing(null)} />}
    </>
  )
}

/** A brand's colours as they stand to one another. */
function Swatches({ brand: { palette: colours } }: { brand: Pick<Brand, 'palette'> }) {
  return (
    <Box
      aria-hidden
      sx={{
        width: 144,
        height: 56,
        bgcolor: colours.ground,
        border: `1px solid ${palette.line}`,
        display: 'flex',
        alignItems: 'center',
        justifyContent: 'center',
        gap: 3,
      }}
    >
      <Box sx={{ color: colours.ink, fontSize: 20, fontWeight: 700 }}>{wording.aa}</Box>
      <Box sx={{ width: 22, height: 22, bgcolor: colours.accent }} />
    </Box>
  )
}
