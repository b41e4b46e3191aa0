'use client'

import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { CaptionsIn, Coding, OutputChoice, OutputSize } from '@/core/model/outputChoice'
import { isBeside, LONGEST_LOOP_SECONDS } from '@/core/output/renderSettings'
import type { FrameRate } from '@/core/time/frameRate'
import { ChoiceField } from '@/ui/ChoiceField'
import { formatRate } from '@/ui/format'
import { wording } from './wording'

const SIZES: Record<OutputSize, string> = {
  shape: wording.asTheShape,
  '1080': wording.atMost1080Across,
  '720': wording.atMost720Across,
  sharp: wording.asLargeAsItIs,
}
const QUALITIES: Record<OutputChoice['quality'], string> = {
  small: wording.smallFile,
  standard: wording.standard,
  high: wording.high,
}
const CAPTIONS: Record<CaptionsIn, string> = {
  picture: wording.onThePicture,
  beside: wording.inAFileBesideIt,
  both: wording.both,
  neither: wording.leftOut,
}
const CODINGS: Record<Coding, string> = {
  'mp4-h264': wording.h264InMp4,
  'mp4-vp9': wording.vp9InMp4,
  'mp4-av1': wording.av1InMp4,
  'webm-vp9': wording.vp9InWebm,
  'webm-av1': wording.av1InWebm,
}
const LOUDNESSES = [-14, -16, -18, -23]

const USUAL_MBITS = 8
const USUAL_MEGABYTES = 25

const isSameRate = (a: FrameRate, b: FrameRate) => a.num * b.den === b.num * a.den

interface Props {
  choice: OutputChoice
  onChange: (choice: OutputChoice) => void
  /** To choose from, the recording's own first. */
  rates: readonly FrameRate[]
  own: FrameRate
  withCaptions: boolean
  withSound: boolean
  withLoop: boolean
}

/** How a file is made: its size, rate, quality, coding, captions, loudness, and what is made beside it. */
export function OutputFields({ choice, onChange, rates, own, withCaptions, withSound, withLoop }: Props) {
  const rateIndex = Math.max(
    0,
    rates.findIndex((r) => choice.frameRate !== null && isSameRate(r, choice.frameRate)),
  )
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 4 }}>
      <ChoiceField
        label={wording.size}
        value={choice.size}
        options={SIZES}
        onChange={(size) => onChange({ ...choice, size })}
      />
      <TextField
        select
        size="small"
        label={wording.frameRate}
        value={rateIndex}
        onChange={(e) =>
          onChange({
            ...choice,
            frameRate: Number(e.target.value) === 0 ? null : (rates[Number(e.target.value)] ?? null),
          })
        }
      >
        {rates.map((rate, i) => (
          <MenuItem key={i} value={i}>
            {i === 0 && isSameRate(rate, own) ? wording.asRecorded(formatRate(rate)) : formatRate(rate)}
          </MenuItem>
        ))}
      </TextField>
      <Quality choice={choice} onChange={onChange} />
      <ChoiceField
        label={wording.coding}
        value={choice.coding}
        options={CODINGS}
        onChange={(coding) => onChange({ ...choice, coding })}
      />
      {withCaptions && (
        <ChoiceField
          label={wording.captions}
          value={choice.captions}
          options={CAPTIONS}
          onChange={(captions) => onChange({ ...choice, captions })}
          help={isBeside(choice.captions) ? wording.webVTTAndSubripSavedWith : undefined}
        />
      )}
      {withSound && (
        <TextField
          select
          size="small"
          label={wording.loudness}
          value={choice.loudness ?? 'mixed'}
          onChange={(e) =>
            onChange({ ...choice, loudness: e.target.value === 'mixed' ? null : Number(e.target.value) })
          }
        >
          <MenuItem value="mixed">{wording.asItIsMixed}</MenuItem>
          {[...new Set([...LOUDNESSES, ...(choice.loudness === null ? [] : [choice.loudness])])].map((lufs) => (
            <MenuItem key={lufs} value={lufs}>
              {wording.broughtToLufs(`${lufs}`.replace('-', '−'))}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box sx={{ gridColumn: '1 / -1', display: 'flex', gap: 4 }}>
        <FormControlLabel
          control={
            <Checkbox size="small" checked={choice.poster} onChange={(_, poster) => onChange({ ...choice, poster })} />
          }
          label={wording.aStillBesideItPng}
        />
        <FormControlLabel
          disabled={!withLoop}
          control={
            <Checkbox
              size="small"
              checked={choice.loop && withLoop}
              onChange={(_, loop) => onChange({ ...choice, loop })}
            />
          }
          label={wording.aLoopBesideItGif(LONGEST_LOOP_SECONDS)}
        />
      </Box>
    </Box>
  )
}

/** By words, by a bitrate or by a limit of size. */
function Quality({ choice, onChange }: Pick<Props, 'choice' | 'onChange'>) {
  const value = heldBy(choice)
  const choose = (to: string) => {
    const none = { ...choice, mostBytes: null, videoBitrate: null }
    if (to === 'size') onChange({ ...none, mostBytes: USUAL_MEGABYTES * 1e6 })
    else if (to === 'bitrate') onChange({ ...none, videoBitrate: USUAL_MBITS * 1e6 })
    else onChange({ ...none, quality: to as OutputChoice['quality'] })
  }
  return (
    <Box sx={{ display: 'flex', gap: 2 }}>
      <TextField
        select
        size="small"
        label={wording.quality}
        value={value}
        onChange={(e) => choose(e.target.value)}
        sx={{ flex: 1, minWidth: 0 }}
      >
        {Object.entries(QUALITIES).map(([quality, name]) => (
          <MenuItem key={quality} value={quality}>
            {name}
          </MenuItem>
        ))}
        <MenuItem value="bitrate">{wording.byBitrate}</MenuItem>
        <MenuItem value="size">{wording.underASize}</MenuItem>
      </TextField>
      {value === 'bitrate' && (
        <Amount
          label={wording.mbitS}
          value={(choice.videoBitrate ?? 0) / 1e6}
          least={0.1}
          most={200}
          onChange={(m) => onChange({ ...choice, videoBitrate: Math.round(m * 1e6) })}
        />
      )}
      {value === 'size' && (
        <Amount
          label={wording.mb}
          value={(choice.mostBytes ?? 0) / 1e6}
          least={0.1}
          most={100_000}
          onChange={(m) => onChange({ ...choice, mostBytes: Math.round(m * 1e6) })}
        />
      )}
    </Box>
  )
}

function Amount({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string
  value: number
  least: number
  most: number
  onChange: (value: number) => void
}) {
  const [text, setText] = useState(`${value}`)
  const isWrong = (of: string) => of.trim() === '' || !(Number(of) >= least && Number(of) <= most)
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={isWrong(text)}
      onChange={(e) => {
        setText(e.target.value)
        if (!isWrong(e.target.value)) onChange(Number(e.target.value))
      }}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      sx={{ width: 88 }}
    />
  )
}

function heldBy({ mostBytes, videoBitrate, quality }: OutputChoice) {
  if (mostBytes !== null) return 'size'
  return videoBitrate !== null ? 'bitrate' : quality
}
