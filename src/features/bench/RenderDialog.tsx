'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useEffect, useState } from 'react'
import { AUDIO_BITRATE, isBeside, ratesFor, settingsFor } from '@/core/output/renderSettings'
import type { FrameRate } from '@/core/time/frameRate'
import { toSeconds } from '@/core/time/micros'
import { usedRecordings } from '@/core/model/edit'
import type { Size } from '@/core/geometry/rect'
import type { CaptionsIn, OutputChoice } from '@/core/model/outputChoice'
import type { Shape } from '@/core/model/shape'
import { inspector } from '@/media/inspect/inspector'
import type { EncoderChoice } from '@/media/render/encoders'
import { outputLength } from '@/core/time/timeMap'
import { queueRenders } from '@/store/renders'
import { formatBytes, formatRate, formatSize } from '@/ui/format'
import { fonts, palette } from '@/ui/theme'
import { useBenchContext, useEdit, usePassage } from './benchContext'

const QUALITIES: Record<OutputChoice['quality'], string> = { small: 'Small file', standard: 'Standard', high: 'High' }

const CAPTIONS: Record<CaptionsIn, string> = { picture: 'On the picture', beside: 'In a file beside it', both: 'Both', neither: 'Left out' }

/** Captions that are kept off the picture on the Bench do not come onto it unasked. */
const kept = (captions: CaptionsIn, shown: boolean): CaptionsIn => (shown ? captions : isBeside(captions) ? 'beside' : 'neither')

const isSameRate = (a: FrameRate, b: FrameRate) => a.num * b.den === b.num * a.den

/** What to render and how; starts the renders and closes. */
export function RenderDialog({ open, onClose, onQueued }: { open: boolean; onClose: () => void; onQueued: (files: number) => void }) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const { recording } = usePassage()
  const { shapes, words, output } = edit.highlight
  const rates = ratesFor(recording)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [choice, setChoice] = useState<OutputChoice>(() => ({ ...output, captions: kept(output.captions, words.captions.shown) }))
  const rateIndex = Math.max(0, rates.findIndex((r) => choice.frameRate !== null && isSameRate(r, choice.frameRate)))
  const chosen = shapes.filter((s) => !left.has(s.id))
  const seconds = toSeconds(outputLength(edit.highlight))
  const bitrateOf = (shape: Size) => settingsFor(choice, shape, recording, seconds).videoBitrate
  const start = async () => {
    session.change('Choose how to render', crypto.randomUUID(), (draft) => void (draft.highlight.output = choice))
    for (const shape of chosen) await queueRenders(session.value, [shape], settingsFor(choice, shape, recording, seconds))
    onQueued(chosen.length)
  }
  return (
    <Dialog open={open} onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle sx={{ fontSize: 16, fontWeight: 700, pb: 1 }}>Render</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Box role="group" aria-label="Shapes to render">
          {shapes.map((shape) => (
            <Box key={shape.id} sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={!left.has(shape.id)}
                    onChange={(_, on) => setLeft((all) => new Set(on ? [...all].filter((id) => id !== shape.id) : [...all, shape.id]))}
                  />
                }
                label={`${shape.id} ${formatSize(shape)}`}
              />
              <Box sx={{ fontFamily: fonts.numbers, fontSize: 12, color: palette.inkSoft }}>about {formatBytes(((bitrateOf(shape) + AUDIO_BITRATE) * seconds) / 8)}</Box>
            </Box>
          ))}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 4 }}>
          <TextField select size="small" label="Frame rate" value={rateIndex} onChange={(e) => setChoice({ ...choice, frameRate: Number(e.target.value) === 0 ? null : (rates[Number(e.target.value)] ?? null) })}>
            {rates.map((rate, i) => (
              <MenuItem key={i} value={i}>
                {i === 0 && rate === recording.video.frameRate ? `As recorded, ${formatRate(rate)}` : formatRate(rate)}
              </MenuItem>
            ))}
          </TextField>
          <TextField select size="small" label="Quality" value={choice.quality} onChange={(e) => setChoice({ ...choice, quality: e.target.value as OutputChoice['quality'] })}>
            {Object.entries(QUALITIES).map(([quality, name]) => (
              <MenuItem key={quality} value={quality}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          {words.cues.length > 0 && (
            <TextField select size="small" label="Captions" value={choice.captions} onChange={(e) => setChoice({ ...choice, captions: e.target.value as CaptionsIn })} helperText={isBeside(choice.captions) ? 'WebVTT and SubRip, saved with the video' : ' '} sx={{ gridColumn: '1 / -1' }}>
              {Object.entries(CAPTIONS).map(([where, name]) => (
                <MenuItem key={where} value={where}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )}
        </Box>
        <Coding shapes={chosen} bitrateOf={bitrateOf} withSound={usedRecordings(edit).some((r) => r.sound !== null)} />
      </DialogContent>
      <DialogActions sx={{ px: 6, pb: 4 }}>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="contained" color="primary" disabled={chosen.length === 0} onClick={() => void start()}>
          Render {chosen.length} {chosen.length === 1 ? 'file' : 'files'}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** How the files will be coded, told beforehand where it is not what plays everywhere by the browser's own means. */
function Coding({ shapes, bitrateOf, withSound }: { shapes: readonly Shape[]; bitrateOf: (shape: Shape) => number; withSound: boolean }) {
  const [words, setWords] = useState('')
  const wanted = JSON.stringify(shapes.map((s) => ({ width: s.width, height: s.height, bitrate: bitrateOf(s) })))
  useEffect(() => {
    let live = true
    const ask = async () => {
      const files = JSON.parse(wanted) as { width: number; height: number; bitrate: number }[]
      const choices = await Promise.all(files.map(({ bitrate, ...size }) => inspector().encoders(size, bitrate, withSound)))
      if (live) setWords(codingWords(files, choices, withSound))
    }
    ask().catch(() => {})
    return () => {
      live = false
    }
  }, [wanted, withSound])
  return (
    <Box role="note" sx={{ fontSize: 12.5, color: palette.inkSoft, minHeight: 18 }}>
      {words}
    </Box>
  )
}

function codingWords(files: readonly Size[], choices: readonly (EncoderChoice | null)[], withSound: boolean): string {
  const refused = files.filter((_, i) => choices[i] === null)
  if (refused.length > 0) return `This browser has no encoder for ${refused.map(formatSize).join(', ')}.`
  if (choices.some((c) => c?.container === 'webm')) return 'This browser cannot write MP4: VP9 and Opus in WebM instead.'
  if (choices.some((c) => c?.shippedAac)) return 'H.264 and AAC in MP4. This browser has no AAC encoder; Brimble’s own is used.'
  return withSound ? 'H.264 and AAC in MP4.' : 'H.264 in MP4, without sound.'
}
