'use client'

import Button from '@mui/material/Button'
import Box from '@mui/material/Box'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useSnackbar } from 'notistack'
import { useEffect, useState } from 'react'
import { chaptersInFile } from '@/core/interchange/chaptersInFile'
import { readCsvMarks, writeCsvMarks } from '@/core/interchange/csvMarks'
import { readEdlMarks, writeEdlMarks } from '@/core/interchange/edlMarks'
import type { Mark, MarkProblem, MarksRead } from '@/core/interchange/mark'
import { MOST_CHARACTERS } from '@/core/interchange/mark'
import { readVttMarks, writeVttMarks } from '@/core/interchange/vttMarks'
import type { Recording } from '@/core/model/recording'
import { MOST_MOMENTS } from '@/core/model/spotting'
import { offerDownload } from '@/ui/offerDownload'
import { chooseFiles } from '../shelf/chosenFiles'
import { asMarks, takeMarks } from './marking'
import { markProblemMessage } from './messages'
import { useSpotContext } from './spotContext'
import type { Found } from './useMoments'

const WRITERS = [
  { name: 'CSV', ending: 'csv', type: 'text/csv', write: (marks: Mark[]) => writeCsvMarks(marks) },
  { name: 'WebVTT chapters', ending: 'vtt', type: 'text/vtt', write: (marks: Mark[]) => writeVttMarks(marks) },
  { name: 'EDL (CMX 3600)', ending: 'edl', type: 'text/plain', write: (marks: Mark[], { name, video }: Recording) => writeEdlMarks(marks, name, video.frameRate) },
] as const

/** Marks made elsewhere, in; moments found here, out. */
export function MarksMenu({ found }: { found: Found }) {
  const { recording, session, file } = useSpotContext()
  const { enqueueSnackbar } = useSnackbar()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [report, setReport] = useState<{ fileName: string; taken: number; problems: MarkProblem[] } | null>(null)
  const chapters = useChapters(file)
  const marks = asMarks(found.moments)
  const close = () => setAnchor(null)

  const take = (fileName: string, { marks: read, problems }: MarksRead) => {
    const { taken, noRoom } = takeMarks(session, recording, found.analysis, read)
    if (problems.length > 0) setReport({ fileName, taken, problems })
    else if (taken + noRoom === 0) enqueueSnackbar(`There is nothing new in “${fileName}”.`)
    else enqueueSnackbar(`${taken} ${taken === 1 ? 'mark' : 'marks'} read from “${fileName}”.`)
    if (noRoom > 0) enqueueSnackbar(`There was no room for ${noRoom} of its marks: a recording has ${MOST_MOMENTS.toLocaleString('en')} moments at most.`)
  }
  const choose = async () => {
    close()
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const { name } = chosen.file
    // The limit is in characters; a file of more bytes than four for each has more.
    const text = chosen.file.size > MOST_CHARACTERS * 4 ? 'x'.repeat(MOST_CHARACTERS + 1) : await chosen.file.text()
    take(name, readMarks(name, text, recording))
  }
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Marks
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem onClick={() => void choose()}>Read CSV, WebVTT or EDL…</MenuItem>
        <MenuItem
          disabled={chapters.length === 0}
          onClick={() => {
            close()
            take(recording.fileName, { marks: chapters, problems: [] })
          }}
        >
          {chapters.length === 0 ? 'No chapters in the file' : `Take ${chapters.length} chapters of the file`}
        </MenuItem>
        {WRITERS.map(({ name, ending, type, write }) => (
          <MenuItem
            key={ending}
            disabled={marks.length === 0}
            onClick={() => {
              close()
              offerDownload(new Blob([write(marks, recording)], { type }), `${recording.name}.${ending}`)
            }}
          >
            Write as {name}
          </MenuItem>
        ))}
      </Menu>
      {report && <ReportDialog {...report} onClose={() => setReport(null)} />}
    </>
  )
}

/** The kind of file is told by its ending, or else by how it begins. */
function readMarks(fileName: string, text: string, { video, durationMicros }: Recording): MarksRead {
  if (/\.vtt$/i.test(fileName) || text.startsWith('WEBVTT')) return readVttMarks(text, durationMicros)
  if (/\.edl$/i.test(fileName) || /^\s*TITLE:/i.test(text)) return readEdlMarks(text, video.frameRate, durationMicros)
  return readCsvMarks(text, video.frameRate, durationMicros)
}

function useChapters(file: Blob): Mark[] {
  const [chapters, setChapters] = useState<Mark[]>([])
  useEffect(() => {
    let live = true
    chaptersInFile(async (offset, length) => new Uint8Array(await file.slice(offset, offset + length).arrayBuffer()), file.size).then(
      (found) => live && setChapters(found),
      () => {},
    )
    return () => {
      live = false
    }
  }, [file])
  return chapters
}

function ReportDialog({ fileName, taken, problems, onClose }: { fileName: string; taken: number; problems: MarkProblem[]; onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle sx={{ fontSize: 16, fontWeight: 700 }}>
        {taken} {taken === 1 ? 'mark' : 'marks'} read from “{fileName}”; {problems.length} {problems.length === 1 ? 'line' : 'lines'} not
      </DialogTitle>
      <DialogContent>
        <Box component="ul" sx={{ m: 0, pl: 5, fontSize: 13, overflowWrap: 'anywhere' }}>
          {problems.map((problem, i) => (
            <li key={i}>{markProblemMessage(problem)}</li>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}
