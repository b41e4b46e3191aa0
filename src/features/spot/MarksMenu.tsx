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
import { writeCsvMarks } from '@/core/interchange/csvMarks'
import { writeEdlMarks } from '@/core/interchange/edlMarks'
import type { Mark, MarkProblem, MarksRead } from '@/core/interchange/mark'
import { writeVttMarks } from '@/core/interchange/vttMarks'
import type { Recording } from '@/core/model/recording'
import { MAX_MOMENTS } from '@/core/model/spotting'
import { readForeign } from '@/media/read/readForeign'
import { offerDownload } from '@/ui/offerDownload'
import { asMarks } from '@/core/detect/proposals'
import { takeMarks } from '@/edit/moments'
import { unreadMessage } from '@/shared/foreignFiles'
import { chooseFiles } from '@/shared/recordings/chosenFiles'
import { markProblemMessage, wording } from './wording'
import { useSpotContext } from './spotContext'
import type { SpottedMoments } from './useMoments'
import { textSize } from '@/ui/theme'

const WRITERS = [
  { name: 'CSV', ending: 'csv', type: 'text/csv', write: (marks: Mark[]) => writeCsvMarks(marks) },
  { name: wording.webVTTChapters, ending: 'vtt', type: 'text/vtt', write: (marks: Mark[]) => writeVttMarks(marks) },
  {
    name: wording.edlCmx3600,
    ending: 'edl',
    type: 'text/plain',
    write: (marks: Mark[], { name, video }: Recording) => writeEdlMarks(marks, name, video.frameRate),
  },
] as const

/** Marks made elsewhere, in; moments found here, out. */
export function MarksMenu({ found }: { found: SpottedMoments }) {
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
    else if (taken + noRoom === 0) enqueueSnackbar(wording.thereIsNothingNewIn(fileName))
    else enqueueSnackbar(`${taken} ${taken === 1 ? 'mark' : 'marks'} read from “${fileName}”.`)
    if (noRoom > 0) enqueueSnackbar(wording.thereWasNoRoomFor(noRoom, MAX_MOMENTS.toLocaleString('en')))
  }
  const choose = async () => {
    close()
    const [chosen] = await chooseFiles(false)
    if (!chosen) return
    const { file } = chosen
    const read = await readForeign(file, (reader) =>
      reader.marks(file, file.name, { video: recording.video, durationMicros: recording.durationMicros }),
    )
    if (read.ok) take(file.name, read.value)
    else enqueueSnackbar(unreadMessage(file.name, read.reason), { variant: 'error', autoHideDuration: 12_000 })
  }
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {wording.marks}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem onClick={() => void choose()}>{wording.readCsvWebvttOrEdl}</MenuItem>
        <MenuItem
          disabled={chapters.length === 0}
          onClick={() => {
            close()
            take(recording.fileName, { marks: chapters, problems: [] })
          }}
        >
          {chapters.length === 0 ? wording.noChaptersInTheFile : wording.takeChaptersOfTheFile(chapters.length)}
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
            {wording.writeAs(name)}
          </MenuItem>
        ))}
      </Menu>
      {report && <ReportDialog {...report} onClose={() => setReport(null)} />}
    </>
  )
}

function useChapters(file: Blob): Mark[] {
  const [chapters, setChapters] = useState<Mark[]>([])
  useEffect(() => {
    let live = true
    void readForeign(file, (reader) => reader.chapters(file)).then((read) => live && read.ok && setChapters(read.value))
    return () => {
      live = false
    }
  }, [file])
  return chapters
}

function ReportDialog({
  fileName,
  taken,
  problems,
  onClose,
}: {
  fileName: string
  taken: number
  problems: MarkProblem[]
  onClose: () => void
}) {
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.readFromNot(taken, fileName, problems.length)}</DialogTitle>
      <DialogContent>
        <Box component="ul" sx={{ m: 0, pl: 5, fontSize: textSize.body, overflowWrap: 'anywhere' }}>
          {problems.map((problem, i) => (
            <li key={i}>{markProblemMessage(problem)}</li>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}
