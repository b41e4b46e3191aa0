'use client'

import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import { MAX_SPEAKERS, type Captions } from '@/core/model/words'
import { ChoiceField } from '@/ui/ChoiceField'
import { ColourField } from '@/ui/ColourField'
import { TextInPlace } from '@/ui/TextInPlace'
import { iconSize, palette, textSize } from '@/ui/theme'
import { addSpeaker, editSpeaker, removeSpeaker, setCaptions } from '@/edit/words'
import { newId, type SpeakerId } from '@/core/model/ids'
import { useBenchContext, useHighlight } from '../benchContext'
import { wording } from './wording'

const TOLD_BY: Record<Captions['speakers'], string> = {
  colour: wording.byTheColourOfThe,
  name: wording.byANameBeforeThe,
  none: wording.notTold,
}

/** Who speaks in a highlight, by name and colour, and how that is told in its captions. */
export function SpeakerFields() {
  const { session } = useBenchContext()
  const { speakers, captions, cues } = useHighlight().words
  return (
    <Box role="group" aria-label={wording.speakers} sx={{ display: 'grid', gap: 2 }}>
      {speakers.length > 0 && (
        <ChoiceField
          label={wording.whoSpeaksIsTold}
          value={captions.speakers}
          options={TOLD_BY}
          onChange={(how) =>
            setCaptions(session, {
              label: wording.howSpeakersAreTold,
              change: { speakers: how },
            })
          }
        />
      )}
      {speakers.map((s) => (
        <Box
          key={s.id}
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto minmax(0, 1fr) auto auto',
            alignItems: 'center',
            columnGap: 2,
            fontSize: textSize.note,
          }}
        >
          <ColourField
            bare
            label={wording.colourOf(s.name)}
            value={s.colour ?? captions.style.colour}
            onSet={(colour, gesture) => editSpeaker(session, { id: s.id, change: { colour } }, gesture)}
          />
          <TextInPlace
            label={wording.nameOf(s.name)}
            value={s.name}
            onSet={(name) => editSpeaker(session, { id: s.id, change: { name } })}
          />
          <Box sx={{ color: palette.inkSoft }}>{countOf(cues.filter((c) => c.speakerId === s.id).length)}</Box>
          <IconButton
            size="small"
            aria-label={wording.remove(s.name)}
            onClick={() => removeSpeaker(session, { id: s.id })}
          >
            <DeleteOutlineIcon sx={{ fontSize: iconSize.medium }} />
          </IconButton>
        </Box>
      ))}
      <Box>
        <Button
          disabled={speakers.length >= MAX_SPEAKERS}
          onClick={() => addSpeaker(session, { id: newId<SpeakerId>() })}
        >
          {wording.addSpeaker}
        </Button>
      </Box>
    </Box>
  )
}

const countOf = (lines: number) => `${lines} ${lines === 1 ? 'line' : 'lines'}`
