'use client'

import ButtonBase from '@mui/material/ButtonBase'
import Divider from '@mui/material/Divider'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import type { Cue, Speaker } from '@/core/model/words'
import { isLight } from '@/core/words/contrast'
import { palette, textSize } from '@/ui/theme'
import { addSpeaker, setSpeaker } from '@/edit/words'
import { newId, type SpeakerId } from '@/core/model/ids'
import { useBenchContext, useHighlight } from '../benchContext'
import { wording } from './wording'

interface SpeakerChipProps {
  cue: Cue
  speaker: Speaker | null
  /** What the choice of speakers hangs on while it is open. */
  anchor: HTMLElement | null
  onOpen: (anchor: HTMLElement | null) => void
}

/** Who says a line, and the choice of somebody else. */
export function SpeakerChip({ cue, speaker, anchor, onOpen }: SpeakerChipProps) {
  const { session } = useBenchContext()
  const { speakers } = useHighlight().words
  const choose = (id: Cue['speakerId']) => {
    setSpeaker(session, { id: cue.id, speakerId: id })
    onOpen(null)
  }
  return (
    <>
      <ButtonBase
        tabIndex={-1}
        aria-label={speaker ? wording.saidBy(speaker.name) : wording.saidByNobodyInParticular}
        title={wording.altWToChoose(speaker?.name)}
        onClick={(e) => onOpen(e.currentTarget)}
        sx={{
          position: 'absolute',
          top: 2,
          right: 2,
          minWidth: 18,
          height: 18,
          px: 1,
          borderRadius: '9px',
          fontSize: textSize.tiny,
          fontWeight: 700,
          border: `1px solid ${palette.line}`,
          bgcolor: speaker?.colour ?? 'transparent',
          color: speaker?.colour && !isLight(speaker.colour) ? '#fff' : palette.ink,
          opacity: speaker ? 1 : 0,
          'div:focus-within > &, div:hover > &': { opacity: 1 },
          '@container (max-width: 110px)': { top: 'auto', bottom: 2 },
        }}
      >
        {speaker ? speaker.name.slice(0, 1).toLocaleUpperCase() : '?'}
      </ButtonBase>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => onOpen(null)}>
        {speakers.map((s) => (
          <MenuItem key={s.id} selected={s.id === cue.speakerId} onClick={() => choose(s.id)}>
            {s.name}
          </MenuItem>
        ))}
        {speakers.length > 0 && <Divider />}
        <MenuItem selected={cue.speakerId === null} onClick={() => choose(null)}>
          {wording.nobodyInParticular}
        </MenuItem>
        <MenuItem
          onClick={() => {
            const id = newId<SpeakerId>()
            if (addSpeaker(session, { id })) choose(id)
          }}
        >
          {wording.somebodyNew}
        </MenuItem>
      </Menu>
    </>
  )
}
