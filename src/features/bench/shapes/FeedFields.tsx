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
import { MICROS_PER_SECOND, toMicros } from '@/core/time/micros'
import { NumberField } from '@/ui/NumberField'
import { palette, textSize } from '@/ui/theme'
import { clearFeed, setFeed } from '@/edit/feeds'
import { useBenchContext, useEdit, usePassage } from '../benchContext'
import { ChooseRecordingDialog } from '../ChooseRecordingDialog'
import { offsetBySound } from './offsetBySound'

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
    setWords('Listening…')
    const alignment = await offsetBySound(edit, files, passage, feed.recordingId)
    if (!alignment) return setWords('There is no sound to line them up by.')
    if (alignment.likeness >= SURE)
      set({ ...feed, clock: { kind: 'together', offsetMicros: alignment.offsetMicros } }, 'Line up by sound')
    setWords(
      alignment.likeness >= SURE
        ? `Lined up; likeness ${alignment.likeness.toFixed(2)}.`
        : `Nothing alike was found (best ${alignment.likeness.toFixed(2)}); left as it is.`,
    )
  }
  return (
    <Box
      role="group"
      aria-label="What it plays"
      sx={{ display: 'grid', rowGap: 1.5, borderTop: 1, borderBottom: 1, borderColor: 'divider', py: 2 }}
    >
      <Box sx={{ fontSize: textSize.note }}>
        Plays <b>{sourceWords(edit, plays)}</b>
      </Box>
      {plays?.kind === 'recording' && (
        <>
          <TextField
            select
            size="small"
            label="It runs"
            value={plays.clock.kind}
            onChange={(e) =>
              set(
                { ...plays, clock: clockAs(plays.clock, e.target.value as FeedClock['kind'], passage.inMicros) },
                'Change feed',
              )
            }
          >
            <MenuItem value="together">together with the passage</MenuItem>
            <MenuItem value="own">by itself, from the passage’s start</MenuItem>
          </TextField>
          <Box
            sx={{ display: 'grid', gridTemplateColumns: '1fr auto', rowGap: 1.5, columnGap: 3, alignItems: 'center' }}
          >
            {plays.clock.kind === 'together' ? (
              <NumberField
                label="Later in its recording by"
                unit="s"
                decimals={3}
                value={plays.clock.offsetMicros / MICROS_PER_SECOND}
                least={-36_000}
                most={36_000}
                step={0.01}
                onSet={(s, gesture) =>
                  set(
                    { ...plays, clock: { kind: 'together', offsetMicros: Math.round(s * MICROS_PER_SECOND) } },
                    'Change feed',
                    gesture,
                  )
                }
              />
            ) : (
              <>
                <NumberField
                  label="From its"
                  unit="s"
                  decimals={2}
                  value={plays.clock.inMicros / MICROS_PER_SECOND}
                  least={0}
                  most={recordingOf(edit, plays.recordingId).durationMicros / MICROS_PER_SECOND}
                  step={0.1}
                  onSet={(s, gesture) =>
                    plays.clock.kind === 'own' &&
                    set({ ...plays, clock: { ...plays.clock, inMicros: toMicros(s) } }, 'Change feed', gesture)
                  }
                />
                <NumberField
                  label="Speed"
                  unit="%"
                  value={plays.clock.speedPercent}
                  least={25}
                  most={400}
                  step={5}
                  onSet={(percent, gesture) =>
                    plays.clock.kind === 'own' &&
                    set(
                      { ...plays, clock: { ...plays.clock, speedPercent: Math.round(percent) } },
                      'Change feed',
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
                onChange={(_, heard) => set({ ...plays, heard }, heard ? 'Hear feed' : 'Mute feed')}
              />
            }
            label="Its sound is heard too"
            {...small}
          />
        </>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
        <Button onClick={() => setChoosing(true)}>
          {plays === undefined ? 'Play another recording…' : 'Another…'}
        </Button>
        {plays?.kind === 'recording' && <Button onClick={() => void lineUp(plays)}>Line up by sound</Button>}
        {plays !== undefined && (
          <Button onClick={() => clearFeed(session, { passageId: passage.id, panelId })}>Play this passage</Button>
        )}
      </Box>
      {words !== null && (
        <Box role="status" sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
          {words}
        </Box>
      )}
      {choosing && (
        <ChooseRecordingDialog
          title="What this panel plays"
          onChosen={({ recordingId, setupId, inMicros }) =>
            set(
              {
                kind: 'recording',
                recordingId,
                setupId,
                heard: false,
                clock: { kind: 'own', inMicros, speedPercent: 100 },
              },
              'Play another recording',
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
  if (plays === undefined) return 'this passage'
  return plays.kind === 'passage' ? 'an earlier passage, on and on' : recordingOf(edit, plays.recordingId).name
}
