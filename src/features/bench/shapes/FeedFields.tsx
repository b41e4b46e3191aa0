'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { PanelId } from '@/core/model/ids'
import type { FeedClock, PanelFeed, RecordingFeed } from '@/core/model/passage'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { NumberField } from '@/ui/NumberField'
import { SecondsField } from '@/ui/SecondsField'
import { palette, textSize } from '@/ui/theme'
import { clearFeed, setFeed } from '@/edit/feeds'
import { useBenchContext, useEdit, usePassage } from '../benchContext'
import { ChooseRecordingDialog } from '../ChooseRecordingDialog'
import { offsetBySound } from './offsetBySound'
import { wording } from './wording'

/** Below this the two sounds have hardly more in common than chance. */
const SURE = 0.5

const small = { slotProps: { typography: { sx: { fontSize: textSize.note } } } } as const

/** What a panel plays in this passage: the passage itself, another recording, or another time of the same. */
export function FeedFields({ panelId }: { panelId: PanelId }) {
  const { session, files } = useBenchContext()
  const edit = useEdit()
  const { passage } = usePassage()
  const [choosing, setChoosing] = useState(false)
  const [words, setWords] = useState<string | null>(null)
  const plays = passage.feeds.find((f) => f.panelId === panelId)?.plays
  const set = (feed: RecordingFeed, label: string, gesture?: string) =>
    setFeed(session, { passageId: passage.id, panelId, plays: feed, label }, gesture)
  const lineUp = async (feed: RecordingFeed) => {
    setWords(wording.listening)
    const alignment = await offsetBySound(edit, files, passage, feed.recordingId)
    if (!alignment) return setWords(wording.thereIsNoSoundTo)
    if (alignment.likeness >= SURE)
      set({ ...feed, clock: { kind: 'together', offsetMicros: alignment.offsetMicros } }, wording.lineUpBySound)
    setWords(
      alignment.likeness >= SURE
        ? wording.linedUpLikeness(alignment.likeness.toFixed(2))
        : wording.nothingAlikeWasFoundBest(alignment.likeness.toFixed(2)),
    )
  }
  return (
    <Box
      role="group"
      aria-label={wording.whatItPlays}
      sx={{ display: 'grid', rowGap: 1.5, borderTop: 1, borderBottom: 1, borderColor: 'divider', py: 2 }}
    >
      <Box sx={{ fontSize: textSize.note }}>
        {wording.plays}
        <b>{sourceWords(edit, plays)}</b>
      </Box>
      {plays?.kind === 'recording' && (
        <>
          <TextField
            select
            size="small"
            label={wording.itRuns}
            value={plays.clock.kind}
            onChange={(e) =>
              set(
                { ...plays, clock: clockAs(plays.clock, e.target.value as FeedClock['kind'], passage.inMicros) },
                wording.changeFeed,
              )
            }
          >
            <MenuItem value="together">{wording.togetherWithThePassage}</MenuItem>
            <MenuItem value="own">{wording.byItselfFromThePassages}</MenuItem>
          </TextField>
          <Box
            sx={{ display: 'grid', gridTemplateColumns: '1fr auto', rowGap: 1.5, columnGap: 3, alignItems: 'center' }}
          >
            {plays.clock.kind === 'together' ? (
              <SecondsField
                label={wording.laterInItsRecordingBy}
                decimals={3}
                value={plays.clock.offsetMicros}
                least={-36_000}
                most={36_000}
                step={0.01}
                onSet={(micros, gesture) =>
                  set({ ...plays, clock: { kind: 'together', offsetMicros: micros } }, wording.changeFeed, gesture)
                }
              />
            ) : (
              <>
                <SecondsField
                  label={wording.fromIts}
                  decimals={2}
                  value={plays.clock.inMicros}
                  least={0}
                  most={recordingOf(edit, plays.recordingId).durationMicros / MICROS_PER_SECOND}
                  step={0.1}
                  onSet={(micros, gesture) =>
                    plays.clock.kind === 'own' &&
                    set({ ...plays, clock: { ...plays.clock, inMicros: micros } }, wording.changeFeed, gesture)
                  }
                />
                <NumberField
                  label={wording.speed}
                  unit="%"
                  value={plays.clock.speedPercent}
                  least={25}
                  most={400}
                  step={5}
                  onSet={(percent, gesture) =>
                    plays.clock.kind === 'own' &&
                    set(
                      { ...plays, clock: { ...plays.clock, speedPercent: Math.round(percent) } },
                      wording.changeFeed,
                      gesture,
                    )
                  }
                />
              </>
            )}
          </Box>
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={plays.heard}
                onChange={(_, heard) => set({ ...plays, heard }, heard ? wording.hearFeed : wording.muteFeed)}
              />
            }
            label={wording.itsSoundIsHeardToo}
            {...small}
          />
        </>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
        <Button onClick={() => setChoosing(true)}>
          {plays === undefined ? wording.playAnotherRecording : wording.another}
        </Button>
        {plays?.kind === 'recording' && <Button onClick={() => void lineUp(plays)}>{wording.lineUpBySound}</Button>}
        {plays !== undefined && (
          <Button onClick={() => clearFeed(session, { passageId: passage.id, panelId })}>
            {wording.playThisPassage}
          </Button>
        )}
      </Box>
      {words !== null && (
        <Box role="status" sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
          {words}
        </Box>
      )}
      {choosing && (
        <ChooseRecordingDialog
          title={wording.whatThisPanelPlays}
          onChosen={({ recordingId, setupId, inMicros }) =>
            set(
              {
                kind: 'recording',
                recordingId,
                setupId,
                heard: false,
                clock: { kind: 'own', inMicros, speedPercent: 100 },
              },
              wording.playAnotherRecordingCapital,
            )
          }
          onClose={() => setChoosing(false)}
        />
      )}
    </Box>
  )
}

/** A clock of another kind that shows the same at the passage's start. */
function clockAs(clock: FeedClock, kind: FeedClock['kind'], passageInMicros: number): FeedClock {
  if (clock.kind === kind) return clock
  return clock.kind === 'own'
    ? { kind: 'together', offsetMicros: clock.inMicros - passageInMicros }
    : { kind: 'own', inMicros: Math.max(0, passageInMicros + clock.offsetMicros), speedPercent: 100 }
}

function sourceWords(edit: Edit, plays: PanelFeed['plays'] | undefined): string {
  if (plays === undefined) return wording.thisPassage
  return plays.kind === 'passage' ? wording.anEarlierPassageOnAnd : recordingOf(edit, plays.recordingId).name
}
