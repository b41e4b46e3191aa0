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
import { framesPerSecond, type FrameRate } from '@/core/time/frameRate'
import { toSeconds } from '@/core/time/micros'
import { usedRecordings } from '@/core/model/edit'
import type { Size } from '@/core/geometry/rect'
import type { Shape } from '@/core/model/shape'
import { inspector } from '@/media/inspect/inspector'
import type { EncoderChoice } from '@/media/render/encoders'
import { outputLength } from '@/core/time/timeMap'
import { queueRenders } from '@/store/renders'
import { formatBytes, formatRate, formatSize } from '@/ui/format'
import { fonts, palette } from '@/ui/theme'
import { useBenchContext, useEdit, usePassage } from './benchContext'

/** Bits per pixel and frame at each quality: a 1080 × 1920 file at 30 fps comes to about 4, 8 and 14 Mbit/s. */
const QUALITIES = [
  { id: 'small', name: 'Small file', bitsPerPixel: 0.064 },
  { id: 'standard', name: 'Standard', bitsPerPixel: 0.129 },
  { id: 'high', name: 'High', bitsPerPixel: 0.225 },
] as const

const AUDIO_BITRATE = 160_000

/** Rates offered besides the recording's own. Never above it: frames would only be shown twice. */
const RATES: readonly FrameRate[] = [24, 25, 30, 50, 60].map((num) => ({ num, den: 1 }))

const MOST_FPS = 60

/** What to render and how; starts the renders and closes. */
export function RenderDialog({ open, onClose, onQueued }: { open: boolean; onClose: () => void; onQueued: (files: number) => void }) {
  const { session } = useBenchContext()
  const edit = useEdit()
  const { recording } = usePassage()
  const { shapes } = edit.highlight
  const own = recording.video.frameRate
  const recorded = framesPerSecond(own) > MOST_FPS ? ({ num: MOST_FPS, den: 1 } as const) : own
  const rates = [recorded, ...RATES.filter((r) => framesPerSecond(r) < framesPerSecond(recorded) - 0.1)]
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [rateIndex, setRateIndex] = useState(0)
  const [qualityId, setQualityId] = useState<string>('standard')
  const frameRate = rates[rateIndex] ?? recorded
  const quality = QUALITIES.find((q) => q.id === qualityId) ?? QUALITIES[1]
  const chosen = shapes.filter((s) => !left.has(s.id))
  const bitrateOf = (s: { width: number; height: number }) => Math.min(100_000_000, Math.max(100_000, Math.round(s.width * s.height * Math.min(60, framesPerSecond(frameRate)) * quality.bitsPerPixel)))
  const seconds = toSeconds(outputLength(edit.highlight))
  const start = async () => {
    for (const shape of chosen) await queueRenders(session.value, [shape], { frameRate, videoBitrate: bitrateOf(shape), audioBitrate: AUDIO_BITRATE })
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
          <TextField select size="small" label="Frame rate" value={rateIndex} onChange={(e) => setRateIndex(Number(e.target.value))}>
            {rates.map((rate, i) => (
              <MenuItem key={i} value={i}>
                {i === 0 && recorded === own ? `As recorded, ${formatRate(rate)}` : formatRate(rate)}
              </MenuItem>
            ))}
          </TextField>
          <TextField select size="small" label="Quality" value={qualityId} onChange={(e) => setQualityId(e.target.value)}>
            {QUALITIES.map((q) => (
              <MenuItem key={q.id} value={q.id}>
                {q.name}
              </MenuItem>
            ))}
          </TextField>
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
