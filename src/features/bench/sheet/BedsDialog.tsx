'use client'

import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import IconButton from '@mui/material/IconButton'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import type { Bed } from '@/core/model/bed'
import { title } from '@/core/model/record'
import type { Edit } from '@/core/model/edit'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { inspector } from '@/media/inspect/inspector'
import type { BedId } from '@/core/model/ids'
import { addSoundFile } from '@/store/soundFiles'
import { SecondsField } from '@/ui/SecondsField'
import { formatLength } from '@/ui/format'
import { NumberField } from '@/ui/NumberField'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { newId } from '@/core/model/ids'
import { changeBed, insertBed, removeBed } from '@/edit/sound'
import { addRecords } from '@/edit/records'
import { chooseFiles } from '@/shared/recordings/chosenFiles'
import { keepMessage, soundProbeMessage } from '@/shared/recordings/wording'
import { useBenchContext, useEdit } from '../benchContext'
import { useListening } from '../useHeard'
import { wording } from './wording'

/** A bed is begun at this level: heard, and well under a voice. */
const FIRST_GAIN_DB = -14
const FIRST_DUCK_DB = 10
const FIRST_FADE_MICROS = 500_000

/**
 * Music and voices under everything: each with its level, its place, and how far it goes down while somebody speaks.
 */
export function BedsDialog({ onClose }: { onClose: () => void }) {
  const { session, player, files } = useBenchContext()
  const edit = useEdit()
  const [problem, setProblem] = useState<string | null>(null)
  const { beds } = edit.highlight
  // Whoever looks for music is about to lay it under speech.
  useListening(edit, files, true)

  const add = async () => {
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const { file } = chosen
    const probed = await inspector().probeSound(file)
    if (!probed.ok) return setProblem(soundProbeMessage(file.name, probed))
    const name = title.safeParse(file.name.replace(/\.[^.]{1,5}$/, ''))
    const { durationMicros, originMicros, sound } = probed
    const { soundFile, kept } = await addSoundFile(
      {
        durationMicros,
        originMicros,
        sound,
        name: name.success ? name.data : wording.sound,
        fileName: file.name.slice(0, 1000),
        sizeBytes: file.size,
      },
      file,
    )
    files.set(soundFile.id, file)
    addRecords(session, { soundFiles: [soundFile] })
    player.openSounds(session.value, files)
    insertBed(session, {
      bed: {
        id: newId<BedId>(),
        soundFileId: soundFile.id,
        startMicros: 0,
        inMicros: 0,
        gainDb: FIRST_GAIN_DB,
        fadeInMicros: FIRST_FADE_MICROS,
        fadeOutMicros: FIRST_FADE_MICROS,
        duckDb: FIRST_DUCK_DB,
      },
    })
    setProblem(keepMessage(file.name, await kept))
  }

  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.musicAndVoiceUnderThe}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        {problem && (
          <Alert severity="error" onClose={() => setProblem(null)}>
            {problem}
          </Alert>
        )}
        {beds.length === 0 && (
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{wording.aFileOfMusicOr}</Typography>
        )}
        {beds.map((bed) => (
          <BedRow key={bed.id} bed={bed} edit={edit} missing={!files.has(bed.soundFileId)} />
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => void add()}>{wording.addAFile}</Button>
        <Button variant="contained" color="primary" onClick={onClose}>
          {wording.done}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function BedRow({ bed, edit, missing }: { bed: Bed; edit: Edit; missing: boolean }) {
  const { session } = useBenchContext()
  const file = edit.soundFiles.find((f) => f.id === bed.soundFileId)
  if (!file) return null
  const seconds = (key: 'startMicros' | 'inMicros' | 'fadeInMicros' | 'fadeOutMicros', label: string, most: number) => (
    <SecondsField
      label={label}
      least={0}
      most={most}
      step={0.1}
      decimals={2}
      value={bed[key]}
      onSet={(micros, gesture) => changeBed(session, { id: bed.id, part: { [key]: micros } }, gesture)}
    />
  )
  return (
    <Box
      component="section"
      aria-label={file.name}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 3, bgcolor: 'background.default' }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 2 }}>
        <Typography noWrap sx={{ fontWeight: 700, fontSize: textSize.body, minWidth: 0 }} title={file.fileName}>
          {file.name}
        </Typography>
        <Box
          sx={{
            fontFamily: fonts.numbers,
            fontSize: textSize.small,
            color: palette.inkSoft,
            flex: 1,
            whiteSpace: 'nowrap',
          }}
        >
          {formatLength(file.durationMicros)}
        </Box>
        <IconButton aria-label={wording.remove(file.name)} onClick={() => removeBed(session, { id: bed.id })}>
          <DeleteOutlineIcon sx={{ fontSize: iconSize.medium }} />
        </IconButton>
      </Box>
      {missing && <Alert severity="warning">{wording.theFileIsNoLonger(file.fileName)}</Alert>}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '1fr auto 1fr auto',
          columnGap: 3,
          rowGap: 1.5,
          alignItems: 'center',
        }}
      >
        <NumberField
          label={wording.level}
          unit="dB"
          least={-60}
          most={24}
          step={0.5}
          decimals={1}
          value={bed.gainDb}
          onSet={(gainDb, gesture) => changeBed(session, { id: bed.id, part: { gainDb } }, gesture)}
        />
        <NumberField
          label={wording.lowerUnderSpeech}
          unit="dB"
          least={0}
          most={60}
          step={1}
          value={bed.duckDb}
          onSet={(duckDb, gesture) => changeBed(session, { id: bed.id, part: { duckDb } }, gesture)}
        />
        {seconds('startMicros', wording.beginsAt, 36_000)}
        {seconds('inMicros', wording.fromItsOwn, Math.max(0, file.durationMicros / MICROS_PER_SECOND - 0.1))}
        {seconds('fadeInMicros', wording.fadeIn, 30)}
        {seconds('fadeOutMicros', wording.fadeOut, 30)}
      </Box>
    </Box>
  )
}
