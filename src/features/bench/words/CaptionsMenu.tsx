'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Divider from '@mui/material/Divider'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useMemo, useState } from 'react'
import type { CaptionProblem } from '@/core/interchange/captionFile'
import { captionFilesOf, captionFilesOfRecording, type CaptionFile } from '@/core/interchange/captionsOf'
import { fillersIn } from '@/core/words/fillers'
import { readForeign } from '@/media/read/readForeign'
import type { Recogniser } from '@/media/speech/recogniser'
import { textBeside } from '@/store/captionTexts'
import { fileSafe } from '@/core/output/fileName'
import { explain } from '@/diagnostics/note'
import { offerDownload } from '@/ui/offerDownload'
import { addCue, setCaptions, setCues, takeOutFillers } from '@/edit/words'
import { unreadMessage } from '@/shared/foreignFiles'
import { chooseFiles } from '@/shared/recordings/chosenFiles'
import { useBenchContext, useHighlight, usePassage } from '../benchContext'
import { FindTextDialog } from './FindTextDialog'
import { DoubtfulDialog } from './DoubtfulDialog'
import { captionProblemMessage, recognisedMessage, recogniserLabel, unreadableMessage, wording } from './wording'
import { PasteTextDialog } from './PasteTextDialog'
import { RecogniseDialog } from './RecogniseDialog'
import { TimeWordsDialog } from './TimeWordsDialog'
import { useRecognisers } from './useRecognisers'
import { useSpeechHere } from './useSpeechHere'
import { useWhoSpeaks } from './useWhoSpeaks'

/** What is said: read from a file, found by ear, pasted, written again. */
export function CaptionsMenu() {
  const { session, player, files } = useBenchContext()
  const { enqueueSnackbar } = useSnackbar()
  const { name, words } = useHighlight()
  const { recording } = usePassage()
  const listen = useSpeechHere()
  const findSpeakers = useWhoSpeaks()
  const beside = useLiveQuery(() => textBeside(recording.id), [recording.id])
  const recognisers = useRecognisers(recording)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [dialog, setDialog] = useState<'paste' | 'find' | 'doubtful' | 'recognise' | 'time' | null>(null)
  const [report, setReport] = useState<{ fileName: string; taken: number; problems: CaptionProblem[] } | null>(null)
  const close = () => setAnchor(null)
  const own = words.cues.filter((c) => c.recordingId === recording.id)

  const choose = async () => {
    close()
    const [chosen] = await chooseFiles(false)
    if (chosen) await read(chosen.file)
  }
  const read = async (file: File) => {
    close()
    const read = await readForeign(file, (reader) => reader.captions(file))
    if (!read.ok)
      return enqueueSnackbar(unreadMessage(file.name, read.reason), { variant: 'error', autoHideDuration: 12_000 })
    const loose = read.value
    if (!loose.ok)
      return enqueueSnackbar(unreadableMessage(file.name, loose.reason), { variant: 'error', autoHideDuration: 12_000 })
    setCues(session, { recordingId: recording.id, loose: loose.cues, label: wording.readCaptions })
    if (loose.problems.length > 0)
      setReport({ fileName: file.name, taken: loose.cues.length, problems: loose.problems })
    else
      enqueueSnackbar(
        `${loose.cues.length} ${loose.cues.length === 1 ? 'caption' : 'captions'} read from “${file.name}”.`,
      )
  }
  const recognise = async (recogniser: Recogniser) => {
    close()
    const file = files.get(recording.id)
    const speech = file ? await listen() : []
    if (!file || speech.length === 0) return enqueueSnackbar(wording.nobodyIsHeardSpeakingIn(recording.name))
    try {
      const recognised = await recogniser.recognise(recording, file, speech)
      setCues(session, { recordingId: recording.id, loose: recognised, label: recogniserLabel(recogniser) })
      enqueueSnackbar(recognisedMessage(recogniser, recognised.length))
    } catch (error) {
      enqueueSnackbar(`${explain('speech recognition', error)}.`, { variant: 'error' })
    }
  }
  const fillers = useMemo(() => (anchor ? fillersIn(words.cues) : []), [anchor, words.cues])
  const dropFillers = (alsoHeard: boolean) => {
    close()
    if (takeOutFillers(session, { fillers, alsoHeard })) enqueueSnackbar(wording.fillersTakenOut(fillers.length))
  }
  const nameSpeakers = async () => {
    close()
    const named = await findSpeakers()
    enqueueSnackbar(named === null ? wording.thisNeedsTwoRegionsOr : wording.ofLinesGivenToWho(named, own.length))
  }
  const save = (files: readonly CaptionFile[], as: string, ending: CaptionFile['ending']) => {
    for (const { type, text } of files.filter((f) => f.ending === ending))
      offerDownload(new Blob([text], { type }), `${fileSafe(as)}.${ending}`)
  }
  const write = (ending: CaptionFile['ending']) => {
    close()
    save(captionFilesOf(session.value), name, ending)
  }
  const writeRecording = (ending: CaptionFile['ending']) => {
    close()
    save(captionFilesOfRecording(session.value, recording.id), recording.name, ending)
  }
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.captions}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem onClick={() => void choose()}>{wording.readWebvttOrSubrip}</MenuItem>
        {beside && (
          <MenuItem onClick={() => void read(new File([beside.blob], beside.fileName))}>
            {wording.readFoundBesideIt(beside.fileName)}
          </MenuItem>
        )}
        {recognisers.map((r) => (
          <MenuItem key={r.id} onClick={() => void recognise(r)}>
            {recogniserLabel(r)}
          </MenuItem>
        ))}
        <MenuItem
          disabled={!recording.sound}
          onClick={() => {
            close()
            setDialog('recognise')
          }}
        >
          {wording.writeWhatIsSaidBy}
        </MenuItem>
        <MenuItem
          disabled={!recording.sound}
          onClick={() => {
            close()
            setDialog('paste')
          }}
        >
          {wording.pasteWhatIsSaid}
        </MenuItem>
        <MenuItem
          disabled={!recording.sound || own.every((c) => c.text.trim() === '')}
          onClick={() => {
            close()
            setDialog('time')
          }}
        >
          {wording.timeWords}
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            addCue(session, player.positionMicros)
          }}
        >
          {wording.anEmptyLineHere}
        </MenuItem>
        <Divider />
        <MenuItem
          disabled={words.cues.length === 0}
          onClick={() => {
            close()
            setDialog('find')
          }}
        >
          {wording.findAndReplace}
        </MenuItem>
        <MenuItem
          disabled={words.cues.length === 0}
          onClick={() => {
            close()
            setDialog('doubtful')
          }}
        >
          {wording.doubtfulWords}
        </MenuItem>
        <MenuItem disabled={fillers.length === 0} onClick={() => dropFillers(false)}>
          {wording.takeFillersOutOfWords(fillers.length)}
        </MenuItem>
        <MenuItem disabled={fillers.every((f) => f.heard === null)} onClick={() => dropFillers(true)}>
          {wording.cutFillersOut}
        </MenuItem>
        <MenuItem disabled={own.length === 0} onClick={() => void nameSpeakers()}>
          {wording.whoSpeaksByWhoMoves}
        </MenuItem>
        <MenuItem
          disabled={own.length === 0}
          onClick={() => (
            close(),
            setCues(session, { recordingId: recording.id, loose: [], label: wording.removeCaptions })
          )}
        >
          {wording.removeAllOf(recording.name)}
        </MenuItem>
        <MenuItem
          disabled={words.cues.length === 0}
          onClick={() => (
            close(),
            setCaptions(session, {
              label: words.captions.shown ? wording.hideCaptions : wording.showCaptions,
              change: { shown: !words.captions.shown },
            })
          )}
        >
          {words.captions.shown ? wording.leaveThemOffThePicture : wording.writeThemOnThePicture}
        </MenuItem>
        <Divider />
        <MenuItem disabled={words.cues.length === 0} onClick={() => write('vtt')}>
          {wording.saveAsWebvtt}
        </MenuItem>
        <MenuItem disabled={words.cues.length === 0} onClick={() => write('srt')}>
          {wording.saveAsSubrip}
        </MenuItem>
        <MenuItem disabled={own.length === 0} onClick={() => writeRecording('vtt')}>
          {wording.saveThoseOfAllOf(recording.name)}
        </MenuItem>
        <MenuItem disabled={own.length === 0} onClick={() => writeRecording('srt')}>
          {wording.saveThoseOfAllOfAs(recording.name)}
        </MenuItem>
      </Menu>
      {dialog === 'time' && <TimeWordsDialog onClose={() => setDialog(null)} />}
      {dialog === 'paste' && <PasteTextDialog onClose={() => setDialog(null)} />}
      {dialog === 'find' && <FindTextDialog onClose={() => setDialog(null)} />}
      {dialog === 'recognise' && <RecogniseDialog onClose={() => setDialog(null)} />}
      {dialog === 'doubtful' && <DoubtfulDialog onClose={() => setDialog(null)} />}
      {report && (
        <Dialog open onClose={() => setReport(null)} maxWidth="sm" fullWidth>
          <DialogTitle>{wording.readFrom(report.taken, report.fileName)}</DialogTitle>
          <DialogContent>
            <Box
              component="ul"
              aria-label={wording.whatWasNotAsIt}
              sx={{ m: 0, pl: 5, maxHeight: 320, overflowY: 'auto' }}
            >
              {report.problems.map((p, i) => (
                <li key={i}>{captionProblemMessage(p)}</li>
              ))}
            </Box>
          </DialogContent>
          <DialogActions>
            <Button variant="contained" color="primary" onClick={() => setReport(null)}>
              {wording.good}
            </Button>
          </DialogActions>
        </Dialog>
      )}
    </>
  )
}
