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

/** What is written on the picture and how: titles, and the captions that the Sheet holds. */
export function WordsMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <Button onClick={(e) => setAnchor(e.currentTarget.closest('section'))} aria-haspopup="dialog">
        Words
      </Button>
      {anchor && (
        <Ticket label="Words" anchor={anchor} onClose={() => setAnchor(null)} side="beside" width={440} gap={3}>
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
          name={titles.length === 1 ? 'Title' : `Title ${i + 1}`}
          open={title.id === open}
          onPick={() => pick(title.id)}
        />
      ))}
      <Box>
        <Button startIcon={<AddIcon />} disabled={titles.length >= MAX_TITLES} onClick={add}>
          {titles.length === 0 ? 'Add title' : 'Add another title'}
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
          onChange={(e) => set('Write the title', { text: e.target.value }, gesture.current)}
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
        <IconButton
          size="small"
          aria-label={`Remove ${name.toLowerCase()}`}
          onClick={() => removeTitle(session, { id: title.id })}
        >
          <DeleteOutlineIcon sx={{ fontSize: iconSize.medium }} />
        </IconButton>
      </Box>
      {open && (
        <>
          <StyleChoice
            label={`${name} style`}
            choices={TITLE_STYLES}
            chosen={title.style}
            onChoose={(style) => set('Title style', { style })}
          />
          <More label={`More about the look of ${name.toLowerCase()}`}>
            <StyleFields
              style={title.style}
              spoken={false}
              onSet={(part, by) => set('Look of the title', { style: { ...title.style, ...part } }, by)}
            />
          </More>
          <TimeFields
            fromMicros={title.fromMicros}
            toMicros={title.toMicros}
            onSet={(change, by) => set('When the title is on', change, by)}
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
              setCaptions(session, { label: on ? 'Show captions' : 'Hide captions', change: { shown: on } })
            }
          />
        }
        label={words.cues.length === 0 ? 'Captions on the picture (there are none yet)' : 'Captions on the picture'}
        slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
      />
      <StyleChoice
        label="Caption style"
        choices={CAPTION_STYLES}
        chosen={style}
        onChoose={(chosen) => setCaptions(session, { label: 'Caption style', change: { style: chosen } })}
      />
      <More label="More about the look of captions">
        <StyleFields
          style={style}
          spoken
          onSet={(part, gesture) =>
            setCaptions(session, { label: 'Look of captions', change: { style: { ...style, ...part } } }, gesture)
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
          {open ? 'Less' : 'More'}
        </Button>
      </Box>
      {open && children}
    </>
  )
}
