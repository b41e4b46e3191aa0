'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Slider from '@mui/material/Slider'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import { useState } from 'react'
import { useStore } from 'zustand'
import type { Edit } from '@/core/model/edit'
import type { Shape } from '@/core/model/shape'
import { clampMicros, type Micros } from '@/core/time/micros'
import { timeMapOf, toRecordingMicros } from '@/core/time/timeMap'
import { inspector } from '@/media/inspect/inspector'
import { undo } from '@/store/undo'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { useBenchContext } from '../benchContext'
import { shapeName } from '../shapes/shapeNames'
import { FinishedFile, useFinishedFile } from './FinishedFile'
import { Still } from './Still'
import { wording } from './wording'

/** Px of the pictures that are compared. */
const HEIGHT = 900

const KINDS = {
  recording: wording.recordingAndResult,
  change: wording.beforeAndAfter,
  along: wording.startMiddleEnd,
  file: wording.fileAndPreview,
} as const
type Kind = keyof typeof KINDS

/**
 * Two or three pictures side by side: what was recorded and what comes of it, what the last change did, a passage
 * along its length, a finished file.
 */
export function CompareDialog({ onClose }: { onClose: () => void }) {
  const { session, player, view } = useBenchContext()
  const history = useStore(session.store, (s) => s.history)
  const edit = history.value
  const { shapes } = edit.highlight
  const [kind, setKind] = useState<Kind>('recording')
  const [shapeId, setShapeId] = useState(shapes[0]?.id)
  const [t, setT] = useState<Micros>(() => player.positionMicros)
  const shape = shapes.find((s) => s.id === shapeId) ?? shapes[0]
  const finished = useFinishedFile(edit.highlight.id, shape)
  if (!shape) return null
  const map = timeMapOf(edit.highlight)
  const at = clampMicros(t, 0, map.lengthMicros - 1)
  const last = history.steps[history.position - 1]
  const passage = map.passages.find((p) => p.passage.id === view.getState().passageId) ?? map.passages[0]
  const goThere = () => {
    player.seek(at)
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="lg" fullWidth>
      <DialogTitle sx={{ display: 'flex', alignItems: 'center', gap: 3, pb: 0 }}>
        <span style={{ flex: 1 }}>{wording.compare}</span>
        <Box role="group" aria-label={wording.shape} sx={{ display: 'flex', gap: 1 }}>
          {shapes.map((s) => (
            <Button
              key={s.id}
              aria-pressed={s.id === shape.id}
              onClick={() => setShapeId(s.id)}
              sx={s.id === shape.id ? { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf } } : undefined}
            >
              {shapeName(s)}
            </Button>
          ))}
        </Box>
      </DialogTitle>
      <Tabs
        value={kind}
        onChange={(_, to: Kind) => setKind(to)}
        aria-label={wording.whatIsCompared}
        sx={{ px: 3, minHeight: 40, '& .MuiTab-root': { minHeight: 40, textTransform: 'none' } }}
      >
        {Object.entries(KINDS).map(([value, label]) => (
          <Tab key={value} value={value} label={label} />
        ))}
      </Tabs>
      <DialogContent sx={{ display: 'grid', gap: 3 }}>
        <Box sx={{ display: 'flex', gap: 3, justifyContent: 'center', alignItems: 'flex-start', minHeight: 240 }}>
          {kind === 'recording' && <Recorded edit={edit} t={at} />}
          {kind === 'recording' && <Result edit={edit} shape={shape} t={at} label={wording.result} />}
          {kind === 'change' && last && (
            <Result edit={undo(history).value} shape={shape} t={at} label={wording.before(last.label)} />
          )}
          {kind === 'change' && (
            <Result
              edit={edit}
              shape={shape}
              t={at}
              label={last ? wording.afterIt : wording.nothingHasBeenChangedYet}
            />
          )}
          {kind === 'along' &&
            passage &&
            (
              [
                [wording.start, 0],
                [wording.middle, 0.5],
                ['End', 1],
              ] as const
            ).map(([label, share]) => {
              const when = clampMicros(
                Math.round(passage.startMicros + share * (passage.endMicros - passage.startMicros)),
                passage.startMicros,
                passage.endMicros - 1,
              )
              return (
                <Result
                  key={label}
                  edit={edit}
                  shape={shape}
                  t={when}
                  label={wording.ofPassage(label, passage.index, formatTime(when))}
                />
              )
            })}
          {kind === 'file' && <FinishedFile finished={finished} shape={shape} t={at} />}
          {kind === 'file' && finished && <Result edit={edit} shape={shape} t={at} label={wording.previewAsItIsNow} />}
        </Box>
        {kind !== 'along' && (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, px: 1 }}>
            <Slider
              size="small"
              aria-label={wording.moment}
              min={0}
              max={map.lengthMicros - 1}
              step={10_000}
              value={at}
              onChange={(_, to) => setT(to as number)}
              getAriaValueText={(v) => formatTime(v, 2)}
              sx={{ color: palette.leaf }}
            />
            <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, whiteSpace: 'nowrap' }}>
              {formatTime(at, 2)}
            </Box>
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        {kind !== 'along' && <Button onClick={goThere}>{wording.goToThisMoment}</Button>}
        <Button onClick={onClose}>{wording.close}</Button>
      </DialogActions>
    </Dialog>
  )
}

function Result({ edit, shape, t, label }: { edit: Edit; shape: Shape; t: Micros; label: string }) {
  const { files } = useBenchContext()
  const [of, setOf] = useState({ edit, n: 0 })
  if (of.edit !== edit) setOf({ edit, n: of.n + 1 })
  const when = clampMicros(t, 0, timeMapOf(edit.highlight).lengthMicros - 1)
  return (
    <Still
      label={label}
      proportion={shape.width / shape.height}
      moment={`${of.n} ${shape.id} ${when}`}
      draw={() => inspector().still(edit, shape, files, when, HEIGHT)}
    />
  )
}

/** The recording that is on at a moment, all of its picture. */
function Recorded({ edit, t }: { edit: Edit; t: Micros }) {
  const { files } = useBenchContext()
  const on = toRecordingMicros(timeMapOf(edit.highlight), t)
  const recording = on && edit.recordings.find((r) => r.id === on.passage.recordingId)
  if (!on || !recording) return null
  const draw = async () => {
    const file = files.get(recording.id)
    const frame = file
      ? await inspector().frame({ id: recording.id, file, originMicros: recording.originMicros }, on.recordingMicros)
      : null
    if (!frame) return null
    const canvas = new OffscreenCanvas(frame.width, frame.height)
    canvas.getContext('2d')?.drawImage(frame, 0, 0)
    frame.close()
    return canvas.convertToBlob({ type: 'image/webp', quality: 0.9 })
  }
  return (
    <Still
      label={`${recording.name}, ${formatTime(on.recordingMicros, 2)}`}
      proportion={recording.video.width / recording.video.height}
      moment={`${recording.id} ${on.recordingMicros}`}
      draw={draw}
    />
  )
}
