'use client'

import Box from '@mui/material/Box'
import { useMemo, useState } from 'react'
import type { CueId } from '@/core/model/ids'
import type { Cue } from '@/core/model/words'
import type { PlacedPassage, TimeMap } from '@/core/time/timeMap'
import { useBenchContext, useHighlight } from '../benchContext'
import { topOfRecording, type SheetLayout } from '../sheet/sheetLayout'
import { SHEET_COLUMNS } from '../sheet/SheetRowView'
import { CueLine } from './CueLine'
import { useRetime } from './useRetime'

/** Lower than this no line of words can be read. */
const MIN_HEIGHT = 24

/** A cue where one passage plays it. */
interface ShownCue {
  cue: Cue
  placed: PlacedPassage
  top: number
  height: number
}

/** Which cue has the caret, and where in it. */
export interface Caret {
  id: CueId
  /** Characters from its start; null leaves it where the browser puts it. */
  at: number | null
}

/** The words column of the Sheet: what is said, beside when. `from`..`to`: the heights in sight. */
export function CueLines({ layout, map, from, to }: { layout: SheetLayout; map: TimeMap; from: number; to: number }) {
  const { player } = useBenchContext()
  const { words } = useHighlight()
  const retime = useRetime()
  const [caret, setCaret] = useState<Caret | null>(null)
  const all = useMemo(
    () => map.passages.flatMap((placed) => words.cues.flatMap((cue) => shown(cue, placed, layout))),
    [map, words.cues, layout],
  )
  const speakers = useMemo(() => new Map(words.speakers.map((s) => [s.id, s])), [words.speakers])
  const goTo = ({ cue, placed }: ShownCue, at: number | null) => {
    setCaret({ id: cue.id, at })
    const run = placed.runs.find((r) => r.outMicros > cue.fromMicros) ?? placed.runs[0]
    if (run)
      player.scrub(
        run.startMicros + Math.round((Math.max(0, cue.fromMicros - run.inMicros) * 100) / placed.passage.speedPercent),
      )
  }
  return (
    <Box
      sx={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        left: 0,
        right: 0,
        display: 'grid',
        gridTemplateColumns: SHEET_COLUMNS,
        columnGap: 2,
        px: 2.5,
        pointerEvents: 'none',
        zIndex: 2,
      }}
    >
      <Box sx={{ gridColumn: 4, position: 'relative' }}>
        {all.map((one, i) =>
          one.top + one.height < from || one.top > to ? null : (
            <CueLine
              key={`${one.placed.passage.id} ${one.cue.id}`}
              cue={one.cue}
              speaker={one.cue.speakerId ? (speakers.get(one.cue.speakerId) ?? null) : null}
              top={one.top}
              height={one.height}
              room={Math.max(one.height, MIN_HEIGHT, (all[i + 1]?.top ?? Infinity) - one.top - 2)}
              microsPerPixel={(layout.microsPerPixel * one.placed.passage.speedPercent) / 100}
              caret={caret?.id === one.cue.id ? caret : null}
              onCaret={setCaret}
              onLeave={(by, at) => {
                const next = all[i + by]
                if (next) goTo(next, at)
              }}
              onWritten={retime}
            />
          ),
        )}
      </Box>
    </Box>
  )
}

function shown(cue: Cue, placed: PlacedPassage, layout: SheetLayout): ShownCue[] {
  const { passage, runs } = placed
  if (
    cue.toMicros <= passage.inMicros ||
    cue.fromMicros >= passage.outMicros ||
    cue.recordingId !== passage.recordingId ||
    !runs.some((r) => r.inMicros < cue.toMicros && r.outMicros > cue.fromMicros)
  )
    return []
  const top = topOfRecording(layout, passage.id, cue.fromMicros)
  return [
    { cue, placed, top, height: Math.max(MIN_HEIGHT, topOfRecording(layout, passage.id, cue.toMicros) - top - 1) },
  ]
}
