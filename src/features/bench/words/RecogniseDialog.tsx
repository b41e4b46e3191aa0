'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogContentText from '@mui/material/DialogContentText'
import DialogTitle from '@mui/material/DialogTitle'
import LinearProgress from '@mui/material/LinearProgress'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useSnackbar } from 'notistack'
import { useEffect, useRef, useState } from 'react'
import { MAX_CUE_LENGTH } from '@/core/model/words'
import { explain } from '@/diagnostics/note'
import { whisperRecogniser } from '@/media/speech/whisperRecogniser'
import { setWhisperLanguage } from '@/store/whisperFolder'
import { setCues } from '@/edit/words'
import { useBenchContext, usePassage } from '../benchContext'
import { folderProblemMessage, languageName, recognisedMessage, wording } from './wording'
import { useSpeechHere } from './useSpeechHere'
import { useWhisperFolder } from './useWhisperFolder'

/** What is said, written down by a speech model in a folder of the person's own. */
export function RecogniseDialog({ onClose }: { onClose: () => void }) {
  const { session, files } = useBenchContext()
  const { recording } = usePassage()
  const { enqueueSnackbar } = useSnackbar()
  const listen = useSpeechHere()
  const { kept, folder, problem, choose, open, forget } = useWhisperFolder()
  const [work, setWork] = useState<{ share: number | null } | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const running = useRef<AbortController | null>(null)
  useEffect(() => () => running.current?.abort(), [])

  const write = async () => {
    setFailure(null)
    const file = files.get(recording.id)
    const read = await open()
    if (!file || !read || !kept) return
    const { signal } = (running.current = new AbortController())
    setWork({ share: null })
    try {
      const speech = await listen()
      if (signal.aborted) return
      if (speech.length === 0) return setFailure(wording.nobodyIsHeardSpeakingIn(recording.name))
      const recogniser = whisperRecogniser(read, kept.language)
      const lines = await recogniser.recognise(recording, file, speech, {
        signal,
        onShare: (share) => setWork({ share }),
      })
      if (lines.length === 0) return setFailure(wording.theModelMadeOutNo)
      setCues(session, {
        recordingId: recording.id,
        loose: lines.map((l) => ({ ...l, text: l.text.slice(0, MAX_CUE_LENGTH) })),
        label: wording.writeWhatIsSaid,
      })
      enqueueSnackbar(recognisedMessage(recogniser, lines.length))
      onClose()
    } catch (error) {
      if (!signal.aborted) setFailure(`${explain('speech recognition', error)}. The captions are as they were.`)
    } finally {
      setWork(null)
    }
  }
  const alert = failure ?? (problem && folderProblemMessage(problem))
  return (
    <Dialog open onClose={work ? undefined : onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.writeWhatIsSaidIn(recording.name)}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <DialogContentText>
          {wording.brimbleBringsNoSpeechModel}
          <code>{wording.encoderModel}</code>
          {wording.and}
          <code>{wording.decoderModelMerged}</code>
          {wording.inAFolder}
          <code>{wording.onnx}</code>
          {wording.orBesideThemNothingIs}
        </DialogContentText>
        <Typography component="div" sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
          <span style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {kept ? wording.folder(kept.name) : wording.noFolderChosenYet}
          </span>
          <Button disabled={work !== null} onClick={() => void choose()}>
            {kept ? wording.anotherFolder : wording.chooseAFolder}
          </Button>
          {kept && (
            <Button disabled={work !== null} title={wording.theFolderItselfStaysAs} onClick={() => void forget()}>
              {wording.forgetIt}
            </Button>
          )}
        </Typography>
        {kept && kept.language !== null && (
          <TextField
            select
            label={wording.languageSpoken}
            value={kept.language}
            disabled={work !== null}
            onChange={(e) => void setWhisperLanguage(e.target.value)}
          >
            {(folder?.languages ?? [kept.language]).map((code) => (
              <MenuItem key={code} value={code}>
                {languageName(code)}
              </MenuItem>
            ))}
          </TextField>
        )}
        {work && (
          <LinearProgress
            aria-label={wording.writtenDownSoFar}
            {...(work.share === null
              ? { variant: 'indeterminate' }
              : { variant: 'determinate', value: work.share * 100 })}
          />
        )}
        {alert && (
          <DialogContentText role="alert" color="error">
            {alert}
          </DialogContentText>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => (work ? running.current?.abort() : onClose())}>
          {work ? wording.stop : wording.cancel}
        </Button>
        <Button variant="contained" color="primary" disabled={!kept || work !== null} onClick={() => void write()}>
          {work ? wording.listening : wording.writeItDown}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
