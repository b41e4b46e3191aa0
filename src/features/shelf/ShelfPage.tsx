'use client'

import { explain } from '@/diagnostics/note'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useCallback, useDeferredValue, useEffect, useMemo, useState, type DragEvent } from 'react'
import { ScreenHeading } from '@/ui/ScreenHeading'
import { TopBar } from '@/ui/TopBar'
import { formatLength } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { BinButton } from '@/shared/bin/BinButton'
import { StorageRoom } from '@/shared/bin/StorageRoom'
import { MakeDraftsButton } from '@/shared/drafts/MakeDraftsButton'
import { ProblemAlert } from './ProblemAlert'
import { RestoreDialog } from './backup/RestoreDialog'
import { chooseFiles, droppedFiles } from '@/shared/recordings/chosenFiles'
import { openDemoShelf } from './demoShelf'
import { EmptyShelf } from './EmptyShelf'
import { MoreMenu } from './MoreMenu'
import { searchShelf } from './search'
import { ShelfDays } from './ShelfDays'
import { ShelfHistogram, type ShelfFilter } from './ShelfHistogram'
import { spanKey } from './spans'
import { useAdding, type Problem } from './useAdding'
import { useShelf, type Shelf } from './useShelf'
import { useWatch } from './watch/useWatch'
import { WatchLeave } from './watch/WatchLeave'
import { wording } from './wording'

/** All recordings, newest first, with what was cut from them. Files dropped anywhere on it are added. */
export function ShelfPage() {
  const shelf = useShelf()
  const adding = useAdding()
  const watch = useWatch()
  const demo = useDemoShelf()
  const [over, setOver] = useState(false)
  const choose = () => void chooseFiles(true).then(adding.add)

  const onDragOver = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes('Files')) return
    event.preventDefault()
    setOver(true)
  }
  const onDrop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    void droppedFiles(event.dataTransfer.items).then(adding.add)
  }

  return (
    <Box
      onDragOver={onDragOver}
      onDragLeave={(e) => e.currentTarget === e.target && setOver(false)}
      onDrop={onDrop}
      sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}
    >
      <TopBar>
        <BinButton />
        <MoreMenu watch={watch} onTakenIn={adding.onTakenIn} />
        {shelf && shelf.recordings > 0 && <MakeDraftsButton />}
        <Button variant="contained" color="primary" onClick={choose}>
          {wording.addRecordings}
        </Button>
      </TopBar>
      {adding.reading > 0 && (
        <LinearProgress aria-label={wording.readingFiles(adding.reading)} sx={{ borderRadius: 0, height: 3 }} />
      )}
      <Box
        component="main"
        sx={{
          flex: 1,
          display: 'flex',
          flexDirection: 'column',
          minHeight: 0,
          overflowY: 'auto',
          outline: over ? `3px solid ${palette.leaf}` : 'none',
          outlineOffset: -3,
        }}
      >
        {watch && <WatchLeave state={watch.state} />}
        {[...adding.problems, ...demo.problems].map((problem) => (
          <ProblemAlert
            key={problem.id}
            problem={problem}
            onCopied={adding.addCopy}
            onClose={() => adding.dismiss(problem.id)}
          />
        ))}
        {shelf && shelf.recordings === 0 && <EmptyShelf onAdd={choose} onDemo={demo.open} opening={demo.opening} />}
        {shelf && shelf.recordings > 0 && <Days shelf={shelf} />}
      </Box>
      {adding.backup && <RestoreDialog file={adding.backup} onClose={adding.doneWithBackup} />}
    </Box>
  )
}

function Days({ shelf }: { shelf: Shelf }) {
  const [filter, setFilter] = useState<ShelfFilter>({ kind: 'day', key: null })
  const [text, setText] = useState('')
  const wanted = useDeferredValue(text)
  const found = useMemo(() => searchShelf(shelf.days, wanted), [shelf, wanted])
  const shown = found.filter((day) => filter.key === null || spanKey(day.iso, filter.kind) === filter.key)
  return (
    <>
      <Box
        sx={{
          px: 4.5,
          py: 2,
          borderBottom: 1,
          borderColor: 'divider',
          display: 'flex',
          justifyContent: 'space-between',
          alignItems: 'baseline',
          flexWrap: 'wrap',
          columnGap: 4,
        }}
      >
        <ScreenHeading name={wording.shelf} purpose={wording.recordingsAndHighlights} />
        <TextField
          size="small"
          type="search"
          placeholder={wording.searchNamesAndWords}
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { 'aria-label': wording.searchTheShelf } }}
          sx={{ width: 240, my: -1 }}
        />
        <Typography sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
          {wording.rendered(
            count(shelf.recordings, 'recording'),
            formatLength(shelf.totalMicros),
            count(shelf.highlights, 'highlight'),
            count(shelf.files, 'file'),
          )}
          <StorageRoom />
        </Typography>
      </Box>
      <ShelfHistogram shelf={shelf} filter={filter} onFilter={setFilter} />
      {shown.length === 0 && (
        <Box role="status" sx={{ p: 8, fontSize: textSize.body, color: palette.inkSoft }}>
          {wording.nothingFoundFor(wanted)}{' '}
          <Button
            onClick={() => {
              setText('')
              setFilter({ ...filter, key: null })
            }}
          >
            {wording.showAll}
          </Button>
        </Box>
      )}
      <ShelfDays days={shown} />
    </>
  )
}

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`

/** The demo shelf: opened by its button, or at once when the address asks for it (`/?demo`). */
function useDemoShelf() {
  const [opening, setOpening] = useState(false)
  const [problems, setProblems] = useState<Problem[]>([])
  const open = useCallback(() => {
    setOpening(true)
    openDemoShelf()
      .catch((error: unknown) =>
        setProblems([
          {
            id: 'demo',
            text: wording.theDemoShelfCouldNot(explain('opening the demo shelf', error)),
          },
        ]),
      )
      .finally(() => setOpening(false))
  }, [])
  useEffect(() => {
    if (!new URLSearchParams(window.location.search).has('demo')) return
    window.history.replaceState(null, '', '/')
    open()
  }, [open])
  return { open, opening, problems }
}
