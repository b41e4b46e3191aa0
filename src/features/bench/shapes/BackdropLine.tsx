'use client'

import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import TextField from '@mui/material/TextField'
import { useSnackbar } from 'notistack'
import { useRef, useState } from 'react'
import type { Backdrop, BackdropKind } from '@/core/model/backdrop'
import type { ImageFile } from '@/core/model/imageFile'
import { CHOOSABLE_PICTURES } from '@/core/model/imageFile'
import type { LayoutNode } from '@/core/model/layout'
import { nameForRole } from '@/core/model/region'
import { setArea, setBackdrop, setGap } from '@/edit/layouts'
import { PercentField } from '@/ui/PercentField'
import { pictureRefusal } from '@/shared/foreignFiles'
import { addImageFile } from '@/store/imageFiles'
import { ColourField } from '@/ui/ColourField'
import { NumberField } from '@/ui/NumberField'
import { Ticket } from '@/ui/Ticket'
import { textSize } from '@/ui/theme'
import { useBenchContext, useEdit, useParts } from '../benchContext'
import { ListLine } from '../ListLine'
import { bringImages } from '../bringImages'
import { wording } from './wording'

const KINDS: Record<BackdropKind, string> = {
  colour: wording.aColour,
  gradient: wording.twoColours,
  blur: wording.aBlurredCopy,
  mirror: wording.mirroredCopies,
  image: wording.aPicture,
}

/** A backdrop of another kind, keeping what both have. */
function backdropAs(known: Backdrop, kind: Exclude<BackdropKind, 'image'>): Backdrop {
  const role = 'role' in known ? known.role : 'whole'
  const darken = 'darken' in known ? known.darken : 0.25
  const colour = colourOf(known)
  if (kind === 'colour') return { kind, colour }
  if (kind === 'gradient') return { kind, from: colour, to: '#16181a', degrees: 0 }
  return kind === 'blur' ? { kind, role, strength: 0.6, darken } : { kind, role, darken }
}

/** What lies behind the panels, and what lies between them. */
export function BackdropLine() {
  const bench = useBenchContext()
  const { session } = bench
  const { layout } = useParts()
  const { backdrop } = layout.arrangement
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const chooser = useRef<HTMLInputElement>(null)
  const { enqueueSnackbar } = useSnackbar()
  const choose = (kind: BackdropKind) =>
    kind === 'image'
      ? chooser.current?.click()
      : setBackdrop(session, { layoutId: layout.id, backdrop: backdropAs(backdrop, kind) })
  const take = async (file: File | undefined) => {
    if (!file) return
    const added = await addImageFile(file)
    if (!added.ok) return void enqueueSnackbar(pictureRefusal(file.name, added.reason), { variant: 'error' })
    await bringImages(bench, [added.imageFile.id])
    setBackdrop(session, {
      layoutId: layout.id,
      backdrop: { kind: 'image', imageFileId: added.imageFile.id, darken: 0 },
    })
  }
  return (
    <ListLine place={wording.behind} moreLabel={wording.moreAboutWhatLiesBehind} onMore={setAnchor}>
      <Select
        variant="standard"
        disableUnderline
        value={backdrop.kind}
        onChange={(e) => choose(e.target.value)}
        inputProps={{ 'aria-label': wording.whatLiesBehindThePanels }}
        sx={{ fontWeight: 600 }}
      >
        {Object.entries(KINDS).map(([kind, words]) => (
          <MenuItem key={kind} value={kind}>
            {words}
          </MenuItem>
        ))}
      </Select>
      <input
        ref={chooser}
        type="file"
        accept={CHOOSABLE_PICTURES}
        hidden
        aria-label={wording.pictureForTheBackdrop}
        onChange={(e) => void take(e.target.files?.[0]).finally(() => (e.target.value = ''))}
      />
      {anchor && <BackdropTicket anchor={anchor} onClose={() => setAnchor(null)} />}
    </ListLine>
  )
}

function BackdropTicket({ anchor, onClose }: { anchor: HTMLElement; onClose: () => void }) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const { layout, setup } = useParts()
  const { backdrop, tree } = layout.arrangement
  const set = (change: Backdrop, gesture?: string) =>
    setBackdrop(session, { layoutId: layout.id, backdrop: change }, gesture)
  const roles = [...new Set(['whole', ...setup.regions.map((r) => r.role)])]
  return (
    <Ticket label={wording.moreAboutWhatLiesBehind} anchor={anchor} onClose={onClose} gap={2}>
      {backdrop.kind === 'colour' && (
        <ColourField
          label={wording.colour}
          value={backdrop.colour}
          onSet={(colour, g) => set({ ...backdrop, colour }, g)}
        />
      )}
      {backdrop.kind === 'gradient' && (
        <>
          <ColourField label={wording.from} value={backdrop.from} onSet={(from, g) => set({ ...backdrop, from }, g)} />
          <ColourField label={wording.to} value={backdrop.to} onSet={(to, g) => set({ ...backdrop, to }, g)} />
        </>
      )}
      {backdrop.kind === 'image' && (
        <Box sx={{ fontSize: textSize.note, overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {pictureName(edit.imageFiles, backdrop.imageFileId)}
        </Box>
      )}
      {(backdrop.kind === 'blur' || backdrop.kind === 'mirror') && (
        <TextField
          select
          size="small"
          label={wording.ofIt}
          value={backdrop.role}
          onChange={(e) => set({ ...backdrop, role: e.target.value })}
        >
          {roles.map((role) => (
            <MenuItem key={role} value={role}>
              {nameForRole(role)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', rowGap: 1.5, columnGap: 3, alignItems: 'center' }}>
        {backdrop.kind === 'gradient' && (
          <NumberField
            label={wording.direction}
            unit="°"
            value={backdrop.degrees}
            least={0}
            most={360}
            step={5}
            onSet={(degrees, g) => set({ ...backdrop, degrees }, g)}
          />
        )}
        {backdrop.kind === 'blur' && (
          <PercentField
            label={wording.blur}
            value={backdrop.strength}
            least={0}
            most={100}
            step={5}
            onSet={(share, g) => set({ ...backdrop, strength: share }, g)}
          />
        )}
        {'darken' in backdrop && (
          <PercentField
            label={wording.darkerBy}
            value={backdrop.darken}
            least={0}
            most={100}
            step={5}
            onSet={(share, g) => set({ ...backdrop, darken: share }, g)}
          />
        )}
        {tree.kind === 'stack' && (
          <NumberField
            label={wording.betweenTheBands}
            unit="px"
            value={tree.gap}
            least={0}
            most={400}
            step={2}
            onSet={(gap, g) => setGap(session, { layoutId: layout.id, gap }, g)}
          />
        )}
      </Box>
      <Box sx={{ display: 'grid' }}>
        {(['titleArea', 'captionArea'] as const).map((kind) => (
          <FormControlLabel
            key={kind}
            control={
              <Checkbox
                size="small"
                checked={hasArea(tree, kind)}
                onChange={(_, there) => setArea(session, { layoutId: layout.id, kind, there })}
              />
            }
            label={kind === 'titleArea' ? wording.aBandForTheTitle : wording.aBandForCaptions}
            slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
          />
        ))}
      </Box>
    </Ticket>
  )
}

const pictureName = (files: readonly ImageFile[], id: string) =>
  files.find((f) => f.id === id)?.name ?? wording.aPictureThatIsMissing

function hasArea(node: LayoutNode, kind: 'titleArea' | 'captionArea'): boolean {
  return node.kind === kind || (node.kind === 'stack' && node.children.some((c) => hasArea(c.node, kind)))
}

function colourOf(backdrop: Backdrop): string {
  if (backdrop.kind === 'colour') return backdrop.colour
  return backdrop.kind === 'gradient' ? backdrop.from : '#20261f'
}
