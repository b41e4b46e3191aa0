'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useStore } from 'zustand'
import type { Highlight } from '@/core/model/highlight'
import { closeRun, isGoing, latestRun, stopRun, takeBackRun, type DraftRun } from '@/store/draftRuns'
import { highlightsOnShelf } from '@/store/highlights'
import { ProgressLine } from '@/ui/ProgressLine'
import { textSize } from '@/ui/theme'
import { draftsWork, interruptDrafts, type DraftsWork } from './draftRunner'
import { wording } from './wording'

/** How far the drafts that were asked for last have come, and the way to undo them; nothing once all are decided. */
export function DraftsBar() {
  const run = useLiveQuery(latestRun, [])
  const highlights = useLiveQuery(highlightsOnShelf, [])
  const { now } = useStore(draftsWork)
  const { enqueueSnackbar } = useSnackbar()
  if (!run || !highlights || run.state === 'closed') return null
  const takeBack = async () => {
    const taken = takeBackRun(run.id)
    interruptDrafts(run.id)
    enqueueSnackbar(wording.takenBack(await taken))
  }
  const stop = async () => {
    await stopRun(run.id)
    interruptDrafts(run.id)
  }
  const made = highlights.filter((h) => h.draft?.runId === run.id)
  if (!isGoing(run) && made.every((h) => h.draft?.isKept) && !run.problem && run.picks.length > 0) return null
  const going = now?.runId === run.id ? now : null
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 3,
        px: 4.5,
        minHeight: 40,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ flex: 1, fontSize: textSize.body }}>
        {isGoing(run) ? (
          <ProgressLine
            words={goingWords(going)}
            share={shareOf(run, going)}
            measure={wording.share}
            stop={wording.stop}
            onStop={() => void stop()}
          />
        ) : (
          <span role="status">{endWords(run, made)}</span>
        )}
      </Box>
      {made.length > 0 && <Button onClick={() => void takeBack()}>{wording.takeBack}</Button>}
      {!isGoing(run) && <Button onClick={() => void closeRun(run.id)}>{wording.close}</Button>}
    </Box>
  )
}

/** Looking through takes longer than making. */
const LOOKING_SHARE = 0.7

function shareOf({ wish, picks }: DraftRun, now: DraftsWork | null): number {
  if (picks.length > 0)
    return LOOKING_SHARE + ((1 - LOOKING_SHARE) * picks.filter((p) => p.state !== 'waiting').length) / picks.length
  return now?.kind === 'looking' ? (LOOKING_SHARE * now.share) / Math.max(1, wish.recordingIds.length) : 0
}

function goingWords(now: DraftsWork | null): string {
  if (!now) return wording.waiting
  return now.kind === 'looking'
    ? wording.looking(now.name, now.secondsLeft)
    : wording.making(now.done, now.of, now.secondsLeft)
}

function endWords(run: DraftRun, made: readonly Highlight[]): string {
  const unread = run.unread.length > 0 ? wording.unread(run.unread.length) : ''
  const done = run.picks.filter((p) => p.state === 'made').length
  if (run.problem) return wording.stoppedBecause(run.problem) + unread
  if (run.state === 'stopped') return wording.stopped(done, run.picks.length || run.wish.count) + unread
  if (run.picks.length === 0) return wording.madeNone + unread
  return wording.made(made.length, made.filter((h) => h.draft?.isKept).length) + unread
}
