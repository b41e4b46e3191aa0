'use client'

import type { Micros } from '@/core/time/micros'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Divider from '@mui/material/Divider'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { memo, useRef, useState } from 'react'
import { brandedMark } from '@/core/layout/branded'
import type { Brand } from '@/core/model/brand'
import type { ImageFileId, MarkId } from '@/core/model/ids'
import { CHOOSABLE_PICTURES } from '@/core/model/imageFile'
import { MAX_MARKS, newMark, type PictureMark } from '@/core/model/pictureMark'
import { newId } from '@/core/model/ids'
import { addMark } from '@/edit/marks'
import { pictureRefusal } from '@/shared/foreignFiles'
import { addImageFile } from '@/store/imageFiles'
import { kept } from '@/store/rack'
import { OneLine } from '@/ui/OneLine'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { useGrowing } from '@/ui/useGrowing'
import { useBenchContext, useEdit, useHighlight, useView } from '../benchContext'
import { ListLine } from '../ListLine'
import { bringImages } from '../bringImages'
import { MARK_NAMES, markName } from './markWords'
import { MarkTicket } from './MarkTicket'
import { wording } from './wording'

/** What is put over the picture besides words, and what could be. */
export function MarkList() {
  const { marks } = useHighlight()
  const shown = useGrowing(marks.length, 4)
  return (
    <Box role="group" aria-label={wording.marksOnThePicture} sx={{ borderTop: 1, borderColor: 'divider', pb: 2 }}>
      {marks.slice(0, shown).map((mark) => (
        <MarkLine key={mark.id} mark={mark} />
      ))}
      <AddMark full={marks.length >= MAX_MARKS} />
    </Box>
  )
}

function AddMark({ full }: { full: boolean }) {
  const bench = useBenchContext()
  const { session, view } = bench
  const { brandId } = useHighlight()
  const brand = useLiveQuery(() => kept('brand'))?.find((b) => b.id === brandId) ?? null
  const { enqueueSnackbar } = useSnackbar()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const chooser = useRef<HTMLInputElement>(null)
  const put = (make: (id: MarkId) => PictureMark) => {
    setAnchor(null)
    const made = make(newId<MarkId>())
    const mark = brand ? brandedMark(made, brand) : made
    if (addMark(session, { mark, label: wording.add(MARK_NAMES[mark.kind].toLowerCase()) }))
      view.setState({ selection: { kind: 'mark', id: mark.id } })
  }
  const putPicture = async (imageFileId: ImageFileId, make: (id: MarkId) => PictureMark) => {
    setAnchor(null)
    await bringImages(bench, [imageFileId])
    put(make)
  }
  const take = async (file: File | undefined) => {
    if (!file) return
    const added = await addImageFile(file)
    if (!added.ok) return void enqueueSnackbar(pictureRefusal(file.name, added.reason), { variant: 'error' })
    const { id: imageFileId } = added.imageFile
    await putPicture(imageFileId, (id) => newMark(id, { kind: 'picture', imageFileId }))
  }
  return (
    <Box sx={{ px: 3, pt: 2 }}>
      <Button aria-haspopup="menu" disabled={full} onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.addMark}
      </Button>
      <input
        ref={chooser}
        type="file"
        accept={CHOOSABLE_PICTURES}
        hidden
        aria-label={wording.pictureToPutOnTop}
        onChange={(e) => void take(e.target.files?.[0]).finally(() => (e.target.value = ''))}
      />
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {brand && brandItems(brand, put, putPicture)}
        {brand && <Divider />}
        <MenuItem
          onClick={() => {
            setAnchor(null)
            chooser.current?.click()
          }}
        >
          {wording.picture}
        </MenuItem>
        {(['handle', 'progress', 'level', 'countdown', 'endCard'] as const).map((kind) => (
          <MenuItem key={kind} onClick={() => put((id) => newMark(id, { kind }))}>
            {MARK_NAMES[kind]}
          </MenuItem>
        ))}
      </Menu>
    </Box>
  )
}

/** What a brand has to put on a picture. */
function brandItems(
  { name, logo, handle, endCard }: Brand,
  put: (make: (id: MarkId) => PictureMark) => void,
  putPicture: (image: ImageFileId, make: (id: MarkId) => PictureMark) => Promise<void>,
) {
  return [
    logo && (
      <MenuItem
        key="logo"
        onClick={() => void putPicture(logo, (id) => newMark(id, { kind: 'picture', imageFileId: logo }))}
      >
        {wording.logoOf(name)}
      </MenuItem>
    ),
    handle && (
      <MenuItem
        key="handle"
        onClick={() => put((id) => ({ ...newMark(id, { kind: 'handle' }), text: handle }) as PictureMark)}
      >
        {wording.handleOf(name)}
      </MenuItem>
    ),
    endCard && (
      <MenuItem
        key="endCard"
        onClick={() =>
          void putPicture(
            endCard,
            (id) => ({ ...newMark(id, { kind: 'endCard' }), imageFileId: endCard }) as PictureMark,
          )
        }
      >
        {wording.endCardOf(name)}
      </MenuItem>
    ),
    !logo && !handle && !endCard && (
      <MenuItem key="nothing" disabled>
        {wording.hasNoLogoHandleOr(name)}
      </MenuItem>
    ),
  ]
}

const MarkLine = memo(function MarkLine({ mark }: { mark: PictureMark }) {
  const { view, player } = useBenchContext()
  const { imageFiles } = useEdit()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const selected = useView((v) => v.selection?.kind === 'mark' && v.selection.id === mark.id)
  const name = markName(mark, imageFiles)
  const when = whenWords(mark, player.lengthMicros)
  return (
    <ListLine
      place={wording.onTop}
      moreLabel={wording.moreAbout(name)}
      isSelected={selected}
      onSelect={() => view.setState({ selection: { kind: 'mark', id: mark.id } })}
      onMore={setAnchor}
      fact={
        <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
          {when}
        </Box>
      }
    >
      <OneLine>{name}</OneLine>
      {anchor && <MarkTicket mark={mark} name={name} anchor={anchor} onClose={() => setAnchor(null)} />}
    </ListLine>
  )
})

/** When a mark is seen. */
function whenWords(mark: PictureMark, lengthMicros: Micros): string {
  if (mark.kind === 'endCard') return wording.lastS((mark.lengthMicros / 1e6).toFixed(1))
  if (mark.fromMicros === null && mark.toMicros === null) return wording.allAlong
  return `${formatTime(mark.fromMicros ?? 0)} – ${formatTime(mark.toMicros ?? lengthMicros)}`
}
