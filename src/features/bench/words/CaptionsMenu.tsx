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
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { cuesOf } from '@/core/compose/wordSteps'
import { MOST_CAPTION_BYTES, readCaptions, type CaptionProblem } from '@/core/interchange/captionFile'
import { writeSubRip, writeWebVtt, type WrittenCue } from '@/core/interchange/captionText'
import { offerDownload } from '@/ui/offerDownload'
import { chooseFiles } from '../../shelf/chosenFiles'
import { useBenchContext, useHighlight, usePassage, useTimeMap } from '../benchContext'
import { FindTextDialog } from './FindTextDialog'
import { captionProblemMessage, unreadableMessage } from './messages'
import { PasteTextDialog } from './PasteTextDialog'
import { useSpeechHere } from './useSpeechHere'
import { addCueAt, setCaptions, setCues } from './wording'

/** What is said: read from a file, found by ear, pasted, written again. */
export function CaptionsMenu() {
  const { session, player } = useBenchContext()
  const { enqueueSnackbar } = useSnackbar()
  const { name, words } = useHighlight()
  const { recording } = usePassage()
  const map = useTimeMap()
  const listen = useSpeechHere()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [dialog, setDialog] = useState<'paste' | 'find' | null>(null)
  const [report, setReport] = useState<{ fileName: string; taken: number; problems: CaptionProblem[] } | null>(null)
  const close = () => setAnchor(null)
  const own = words.cues.filter((c) => c.recordingId === recording.id)

  const read = async () => {
    close()
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const { file } = chosen
    const found = file.size > MOST_CAPTION_BYTES ? ({ ok: false, reason: 'too-large', problems: [] } as const) : await readCaptions(new Uint8Array(await file.arrayBuffer()))
    if (!found.ok) return enqueueSnackbar(unreadableMessage(file.name, found.reason), { variant: 'error', autoHideDuration: 12_000 })
    setCues(session, recording.id, found.cues, 'Read captions')
    if (found.problems.length > 0) setReport({ fileName: file.name, taken: found.cues.length, problems: found.problems })
    else enqueueSnackbar(`${found.cues.length} ${found.cues.length === 1 ? 'caption' : 'captions'} read from “${file.name}”.`)
  }
  const blanks = async () => {
    close()
    const speech = await listen()
    if (speech.length === 0) return enqueueSnackbar(`Nobody is heard speaking in “${recording.name}” here.`)
    setCues(session, recording.id, speech.map((s) => ({ ...s, text: '', words: [], voice: null })), 'Captions where somebody speaks')
    enqueueSnackbar(`${speech.length} ${speech.length === 1 ? 'stretch' : 'stretches'} of speech found: write what is said.`)
  }
  const write = (ending: 'vtt' | 'srt') => {
    close()
    const speakerOf = (id: string | null) => words.speakers.find((s) => s.id === id)?.name ?? null
    const written = cuesOf(words, map).map((c): WrittenCue => ({ fromMicros: c.fromMicros, toMicros: c.toMicros, text: c.text, voice: speakerOf(c.speakerId) }))
    const text = ending === 'vtt' ? writeWebVtt(written) : writeSubRip(written)
    offerDownload(new Blob([text], { type: ending === 'vtt' ? 'text/vtt' : 'application/x-subrip' }), `${name}.${ending}`)
  }
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Captions
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem onClick={() => void read()}>Read WebVTT or SubRip…</MenuItem>
        <MenuItem disabled={!recording.sound} onClick={() => void blanks()}>
          Empty lines where somebody speaks
        </MenuItem>
        <MenuItem
          disabled={!recording.sound}
          onClick={() => {
            close()
            setDialog('paste')
          }}
        >
          Paste what is said…
        </MenuItem>
        <MenuItem
          onClick={() => {
            close()
            addCueAt(session, player.positionMicros)
          }}
        >
          An empty line here
        </MenuItem>
        <Divider />
        <MenuItem
          disabled={words.cues.length === 0}
          onClick={() => {
            close()
            setDialog('find')
          }}
        >
          Find and replace…
        </MenuItem>
        <MenuItem disabled={own.length === 0} onClick={() => (close(), setCues(session, recording.id, [], 'Remove captions'))}>
          Remove all of “{recording.name}”
        </MenuItem>
        <MenuItem disabled={words.cues.length === 0} onClick={() => (close(), setCaptions(session, words.captions.shown ? 'Hide captions' : 'Show captions', { shown: !words.captions.shown }))}>
          {words.captions.shown ? 'Leave them off the picture' : 'Write them on the picture'}
        </MenuItem>
        <Divider />
        <MenuItem disabled={words.cues.length === 0} onClick={() => write('vtt')}>
          Save as WebVTT
        </MenuItem>
        <MenuItem disabled={words.cues.length === 0} onClick={() => write('srt')}>
          Save as SubRip
        </MenuItem>
      </Menu>
      {dialog === 'paste' && <PasteTextDialog onClose={() => setDialog(null)} />}
      {dialog === 'find' && <FindTextDialog onClose={() => setDialog(null)} />}
      {report && (
        <Dialog open onClose={() => setReport(null)} maxWidth="sm" fullWidth>
          <DialogTitle>{`${report.taken} ${report.taken === 1 ? 'caption' : 'captions'} read from “${report.fileName}”`}</DialogTitle>
          <DialogContent>
            <Box component="ul" aria-label="What was not as it should be" sx={{ m: 0, pl: 5, maxHeight: 320, overflowY: 'auto' }}>
              {report.problems.map((p, i) => (
                <li key={i}>{captionProblemMessage(p)}</li>
              ))}
            </Box>
          </DialogContent>
          <DialogActions>
            <Button variant="contained" color="primary" onClick={() => setReport(null)}>
              Good
            </Button>
          </DialogActions>
        </Dialog>
      )}
    </>
  )
}
