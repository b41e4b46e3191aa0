'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { useLiveQuery } from 'dexie-react-hooks'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Outlet } from '@/core/model/outlet'
import { title } from '@/core/model/record'
import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'
import { copyHighlight } from '@/store/highlights'
import { kept } from '@/store/rack'
import { formatSize } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { toggleShape } from '@/edit/highlight'
import { useBenchContext, useHighlight, useView } from '../benchContext'
import { OwnSizeTicket } from './OwnSizeTicket'
import { wording } from './wording'

const NO_ZONES = ''

/** Which shapes a highlight goes out in, and whose zones are drawn over them. */
export function ShapeChips() {
  const { session, view } = useBenchContext()
  const router = useRouter()
  const { shapes } = useHighlight()
  const outlet = useView((v) => v.outlet)
  const outlets = useLiveQuery(() => kept('outlet'))
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const own = shapes.filter((s) => STANDARD_SHAPES.every((known) => known.id !== s.id))
  const copyForOutlet = async ({ id, name, shape }: Outlet) => {
    const edit = session.value
    const copy = await copyHighlight(
      { ...edit, highlight: { ...edit.highlight, shapes: [shape] } },
      title.parse(`${edit.highlight.name}, ${name}`),
    )
    // The copy is opened with the zones that it is made for.
    router.push(`/highlight/${encodeURIComponent(copy.id)}?outlet=${encodeURIComponent(id)}`)
  }
  const chip = (shape: Shape, words: string) => {
    const chosen = shapes.some((s) => s.id === shape.id)
    return (
      <Button
        key={shape.id}
        aria-pressed={chosen}
        disabled={chosen && shapes.length === 1}
        onClick={() => toggleShape(session, { shape })}
        sx={{
          px: 1.5,
          ...(chosen && { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf, color: palette.ink } }),
        }}
      >
        {words}
      </Button>
    )
  }
  return (
    <Box
      sx={{
        display: 'flex',
        gap: 1,
        px: 3,
        py: 1.5,
        borderBottom: 1,
        borderColor: 'divider',
        flexWrap: 'wrap',
        alignItems: 'center',
      }}
      role="group"
      aria-label={wording.shapesThatThisHighlightGoes}
    >
      {STANDARD_SHAPES.map((shape) => chip(shape, shape.id))}
      {own.map((shape) => chip(shape, formatSize(shape)))}
      <Button aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.ownSizeButton}
      </Button>
      {anchor && <OwnSizeTicket anchor={anchor} onClose={() => setAnchor(null)} />}
      <Select
        variant="standard"
        disableUnderline
        displayEmpty
        value={outlet?.id ?? NO_ZONES}
        onChange={(e) => view.setState({ outlet: outlets?.find((o) => o.id === e.target.value) ?? null })}
        inputProps={{ 'aria-label': wording.zonesOfAnOutlet }}
        sx={{ ml: 'auto', fontSize: textSize.note, maxWidth: 150 }}
      >
        <MenuItem value={NO_ZONES}>{wording.noZones}</MenuItem>
        {outlets?.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.name}
          </MenuItem>
        ))}
      </Select>
      {outlet && (
        <Button title={wording.aHighlightOfItsOwn(formatSize(outlet.shape))} onClick={() => void copyForOutlet(outlet)}>
          {wording.copyFor(outlet.name)}
        </Button>
      )}
    </Box>
  )
}
