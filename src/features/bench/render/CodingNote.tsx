'use client'

import Box from '@mui/material/Box'
import { useEffect, useState } from 'react'
import type { Size } from '@/core/geometry/rect'
import type { RenderSettings } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { sizeOfFile } from '@/core/output/renderSettings'
import { quietly } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import type { EncoderChoice } from '@/media/render/encoders'
import { formatSize } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { wording } from './wording'

interface Asked extends Size {
  bitrate: number
  coding: RenderSettings['coding']
}

/** How the files will be coded, told beforehand where it is not what was asked for by the browser's own means. */
export function CodingNote({
  wanted,
  withSound,
}: {
  wanted: readonly { shape: Shape; settings: RenderSettings }[]
  withSound: boolean
}) {
  const [words, setWords] = useState('')
  const byQuality = wanted.some((w) => w.settings.constantQuality !== null)
  const key = JSON.stringify(
    wanted.map((w): Asked => ({ ...sizeOfFile(w), bitrate: w.settings.videoBitrate, coding: w.settings.coding })),
  )
  useEffect(() => {
    let live = true
    const ask = async () => {
      const files = JSON.parse(key) as Asked[]
      const choices = await Promise.all(
        files.map(({ bitrate, coding, ...size }) => inspector().encoders(size, bitrate, withSound, coding)),
      )
      if (live) setWords(codingWords(files, choices, withSound, byQuality))
    }
    ask().catch(quietly('asking for encoders'))
    return () => {
      live = false
    }
  }, [key, withSound, byQuality])
  return (
    <Box role="note" sx={{ fontSize: textSize.note, color: palette.inkSoft, minHeight: 18 }}>
      {words}
    </Box>
  )
}

function codingWords(
  files: readonly Asked[],
  choices: readonly (EncoderChoice | null)[],
  withSound: boolean,
  byQuality: boolean,
): string {
  const refused = files.filter((_, i) => choices[i] === null)
  if (refused.length > 0) return wording.thisBrowserHasNoEncoder(refused.map(formatSize).join(', '))
  const [choice] = choices
  if (!choice) return ''
  const names = { avc: 'H.264', vp9: 'VP9', av1: 'AV1' } as Record<string, string>
  const made = wording.inIt(names[choice.video], choice.video, withSound, choice.audio, choice.container)
  const asked = files[0]?.coding === `${choice.container}-${choice.video === 'avc' ? 'h264' : choice.video}`
  if (!asked) return wording.thisBrowserCannotWriteThat(made)
  const held = byQuality && (choice.video === 'avc' ? wording.theQualityIsKeptBy : wording.theQualityIsHeldWhatever)
  return `${made}.${choice.shippedAac ? wording.thisBrowserHasNoAac : ''}${held || ''}`
}
