'use client'

import AddIcon from '@mui/icons-material/Add'
import ExpandMoreIcon from '@mui/icons-material/ExpandMore'
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Divider from '@mui/material/Divider'
import FormControlLabel from '@mui/material/FormControlLabel'
import IconButton from '@mui/material/IconButton'
import TextField from '@mui/material/TextField'
import { useRef, useState, type ReactNode } from 'react'
import { newId, type TitleId } from '@/core/model/ids'
import { MAX_TITLES, type TitleCard } from '@/core/model/words'
import { CAPTION_STYLES, TITLE_STYLES } from '@/core/words/textStyles'
import { Ticket } from '@/ui/Ticket'
import { addTitle, editTitle, removeTitle, setCaptions } from '@/edit/words'
import { useBenchContext, useHighlight, useView } from '../benchContext'
import { TimeFields } from '../TimeFields'
import { SpeakerFields } from './SpeakerFields'
import { StyleChoice } from './StyleChoice'
import { StyleFields } from './StyleFields'
import { iconSize, textSize } from '@/ui/theme'
import { wording } from './wording'

/** What is written on the picture and how: titles, and the captions that the Sheet holds. */
export function WordsMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button onClick={(e) => setAnchor(e.currentTarget.closest('section'))} aria-haspopup="dialog">
        {wording.words}
      </Button>
      {anchor && (
        <Ticket label={wording.words} anchor={anchor} onClose={() => setAnchor(null)} side="beside" width={440} gap={3}>
          <Titles />
          <Divider />
          <CaptionLook />
        </Ticket>
      )}
    </>
  )
}

function Titles() {
  const { session, view } = useBenchContext()
  const { titles } = useHighlight().words
  const selected = useView((v) => (v.selection?.kind === 'title' ? v.selection.id : null))
  const open = titles.find((t) => t.id === selected)?.id ?? titles[0]?.id
  const add = () => {
    const id = newId<TitleId>()
    addTitle(session, { id, text: '' })
    pick(id)
  }
  const pick = (id: TitleId) => view.setState({ selection: { kind: 'title', id } })
  return (
    <>
      {titles.map((title, i) => (
        <TitleFields
          key={title.id}
          title={title}
          name={titles.length === 1 ? wording.title : wording.titleOfI(i)}
          open={title.id === open}
          onPick={() => pick(title.id)}
        />
      ))}
      <Box>
        <Button startIcon={<AddIcon />} disabled={titles.length >= MAX_TITLES} onClick={add}>
          {titles.length === 0 ? wording.addTitle : wording.addAnotherTitle}
        </Button>
      </Box>
    </>
  )
}

/** One title: its words; when it is picked up, also how they look and when they are on. */
function TitleFields({
  title,
  name,
  open,
  onPick,
}: {
  title: TitleCard
  name: string
  open: boolean
  onPick: () => void
}) {
  const { session } = useBenchContext()
  const gesture = useRef(crypto.randomUUID())
  const set = (label: string, change: Partial<TitleCard>, by?: string) =>
    editTitle(session, { id: title.id, label, change }, by)
  return (
    <Box role="group" aria-label={name} sx={{ display: 'grid', gap: 2 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <TextField
          label={name}
          size="small"
          multiline
          maxRows={3}
          fullWidth
          autoFocus={title.text === ''}
          value={title.text}
          onFocus={onPick}
          onChange={(e) => set(wording.writeTheTitle, { text: e.target.value }, gesture.current)}
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
        <IconButton
          size="small"
          aria-label={wording.remove(name.toLowerCase())}
          onClick={() => removeTitle(session, { id: title.id })}
        >
          <DeleteOutlineIcon sx={{ fontSize: iconSize.medium }} />
        </IconButton>
      </Box>
      {open && (
        <>
          <StyleChoice
            label={wording.style(name)}
            choices={TITLE_STYLES}
            chosen={title.style}
            onChoose={(style) => set(wording.titleStyle, { style })}
          />
          <More label={wording.moreAboutTheLookOf(name.toLowerCase())}>
            <StyleFields
              style={title.style}
              spoken={false}
              onSet={(part, by) => set(wording.lookOfTheTitle, { style: { ...title.style, ...part } }, by)}
            />
          </More>
          <TimeFields
            fromMicros={title.fromMicros}
            toMicros={title.toMicros}
            onSet={(change, by) => set(wording.whenTheTitleIsOn, change, by)}
          />
        </>
      )}
    </Box>
  )
}

function CaptionLook() {
  const { session } = useBenchContext()
  const { words } = useHighlight()
  const { style, shown } = words.captions
  return (
    <>
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={shown}
            onChange={(_, on) =>
              setCaptions(session, { label: on ? wording.showCaptions : wording.hideCaptions, change: { shown: on } })
            }
          />
        }
        label={words.cues.length === 0 ? wording.captionsOnThePictureThere : wording.captionsOnThePicture}
        slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
      />
      <StyleChoice
        label={wording.captionStyle}
        choices={CAPTION_STYLES}
        chosen={style}
        onChoose={(chosen) => setCaptions(session, { label: wording.captionStyle, change: { style: chosen } })}
      />
      <More label={wording.moreAboutTheLookOfCaptions}>
        <StyleFields
          style={style}
          spoken
          onSet={(part, gesture) =>
            setCaptions(session, { label: wording.lookOfCaptions, change: { style: { ...style, ...part } } }, gesture)
          }
        />
      </More>
      <SpeakerFields />
    </>
  )
}

/** What is seldom changed, opened when it is asked for. */
function More({ label, children }: { label: string; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Box>
        <Button
          size="small"
          aria-expanded={open}
          aria-label={label}
          onClick={() => setOpen(!open)}
          endIcon={<ExpandMoreIcon sx={{ transform: open ? 'rotate(180deg)' : 'none' }} />}
        >
          {open ? wording.less : wording.more}
        </Button>
      </Box>
      {open && children}
    </>
  )
}
