'use client'

import Box from '@mui/material/Box'
import { useEffect, useMemo, useRef, type PointerEvent as ReactPointerEvent } from 'react'
import { cutsOf } from '@/core/detect/analysis'
import { Waveform } from '@/core/detect/waveform'
import type { Moment } from '@/core/model/spotting'
import type { Micros } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { adjust } from '@/edit/moments'
import {
  clear,
  drawCuts,
  drawLiveliness,
  drawMoments,
  drawPictures,
  drawUnknown,
  drawWaveform,
  PICTURES_HEIGHT,
  xOf,
} from './drawBands'
import { EdgeHandle } from './EdgeHandle'
import { PictureCache } from './pictureCache'
import { panStretch, showStretch, useSpotContext, useSpotView, zoomStretch } from './spotContext'
import { useBandCanvas } from './useBandCanvas'
import type { SpottedMoments } from './useMoments'
import { usePinch } from './usePinch'
import { wording } from './wording'

const WHOLE_HEIGHT = 76
const STRETCH_HEIGHT = 150

/** One notch of a wheel makes the stretch this much longer or shorter. */
const WHEEL_BASE = 1.0018

/** The whole recording as one band, and a magnified stretch of it. */
export function Bands({ found }: { found: SpottedMoments }) {
  const { fromMicros, toMicros } = useSpotView((v) => v)
  const waveform = useWaveform(found)
  return (
    <Box sx={{ px: 4.5, pt: 1.5, pb: 2, borderTop: 1, borderColor: 'divider', display: 'grid', gap: 1 }}>
      <Heading title={wording.wholeRecording} facts={wording.levelAndLiveliness} />
      <WholeBand found={found} waveform={waveform} />
      <Heading title={wording.magnified} facts={`${formatTime(fromMicros)} – ${formatTime(toMicros)}`} />
      <StretchBand found={found} waveform={waveform} />
    </Box>
  )
}

function Heading({ title, facts }: { title: string; facts: string }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2 }}>
      <Box component="h2" sx={{ m: 0, fontSize: textSize.body, fontWeight: 700 }}>
        {title}
      </Box>
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft }}>{facts}</Box>
    </Box>
  )
}

/** The waveform of what has been heard; the same object all the time, growing. */
function useWaveform({ analysis }: SpottedMoments): Waveform {
  const { recording } = useSpotContext()
  const waveform = useMemo(() => {
    void recording.id
    return new Waveform()
  }, [recording.id])
  for (const [index, part] of analysis.sound) waveform.add(index, part)
  return waveform
}

function WholeBand({ found, waveform }: { found: SpottedMoments; waveform: Waveform }) {
  const { recording, player, view } = useSpotContext()
  const { durationMicros } = recording
  const { fromMicros, toMicros, selected } = useSpotView((v) => v)
  const host = useRef<HTMLDivElement>(null)
  const { canvas, redraw } = useBandCanvas((ctx, width, height) => {
    const band = { ctx, width, height, fromMicros: 0, toMicros: durationMicros }
    clear(band)
    if (found.liveliness) drawLiveliness(band, found.liveliness)
    drawWaveform(band, waveform, 6, height - 4)
    drawUnknown(band, found.analysis, recording.sound !== null)
    drawMoments(band, found.moments, selected)
  })
  useEffect(redraw, [redraw, found, waveform, selected])
  const timeAt = (clientX: number) => {
    const box = host.current?.getBoundingClientRect()
    return box ? ((clientX - box.left) / box.width) * durationMicros : 0
  }
  const dragging = useDrag((event) => {
    const length = view.getState().toMicros - view.getState().fromMicros
    const start = timeAt(event.clientX)
    const inWindow = start >= fromMicros && start <= toMicros
    const offset = inWindow ? start - fromMicros : length / 2
    showStretch(view, durationMicros, start - offset, length)
    if (!inWindow) player.scrub(start)
    return ({ clientX }) => showStretch(view, durationMicros, timeAt(clientX) - offset, length)
  })
  const left = (fromMicros / durationMicros) * 100
  const width = Math.max(0.15, ((toMicros - fromMicros) / durationMicros) * 100)
  return (
    <Box
      ref={host}
      data-testid="whole-band"
      onPointerDown={dragging}
      sx={{
        position: 'relative',
        height: WHOLE_HEIGHT,
        border: 1,
        borderColor: 'divider',
        cursor: 'pointer',
        touchAction: 'none',
        overflow: 'hidden',
      }}
    >
      <Box
        component="canvas"
        ref={canvas}
        role="img"
        aria-label={wording.theWholeRecordingLevelLiveliness}
        sx={{ width: '100%', height: '100%', display: 'block' }}
      />
      <Box
        aria-hidden
        sx={{
          position: 'absolute',
          top: 0,
          bottom: 0,
          left: `${left}%`,
          width: `${width}%`,
          border: `1.5px solid ${palette.ink}`,
          bgcolor: 'rgba(255, 255, 255, 0.25)',
          cursor: 'grab',
        }}
      />
      <BandPlayhead fromMicros={0} toMicros={durationMicros} />
    </Box>
  )
}

function StretchBand({ found, waveform }: { found: SpottedMoments; waveform: Waveform }) {
  const { recording, player, view, session } = useSpotContext()
  const { durationMicros } = recording
  const { fromMicros, toMicros, selected } = useSpotView((v) => v)
  const host = useRef<HTMLDivElement>(null)
  const draw = useRef<() => void>(() => {})
  const pictures = useMemo(() => new PictureCache(() => draw.current()), [])
  useEffect(() => () => pictures.close(), [pictures])
  const cuts = useMemo(() => cutsOf(found.analysis), [found.analysis])
  const { canvas, redraw } = useBandCanvas((ctx, width, height) => {
    const now = view.getState()
    const band = { ctx, width, height, fromMicros: now.fromMicros, toMicros: now.toMicros }
    pictures.update(found.analysis)
    clear(band)
    drawWaveform(band, waveform, PICTURES_HEIGHT + 6, height - 6)
    drawUnknown(band, found.analysis, recording.sound !== null)
    drawPictures(band, pictures)
    drawMoments(band, found.moments, selected)
    drawCuts(band, cuts)
  })
  draw.current = redraw
  useEffect(redraw, [redraw, found, waveform, selected, fromMicros, toMicros])

  const timeAt = (clientX: number) => {
    const box = host.current?.getBoundingClientRect()
    const now = view.getState()
    return box ? now.fromMicros + ((clientX - box.left) / box.width) * (now.toMicros - now.fromMicros) : 0
  }
  const perPixel = () =>
    (view.getState().toMicros - view.getState().fromMicros) / Math.max(1, host.current?.clientWidth ?? 1)
  useEffect(() => {
    const element = host.current
    if (!element) return
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      const box = element.getBoundingClientRect()
      const now = view.getState()
      const length = now.toMicros - now.fromMicros
      const sideways = event.shiftKey ? event.deltaY : event.deltaX
      if (!event.ctrlKey && Math.abs(sideways) > Math.abs(event.shiftKey ? 0 : event.deltaY))
        panStretch(view, durationMicros, (sideways / box.width) * length)
      // Pinching on a trackpad arrives as a wheel with Ctrl, in smaller steps.
      else
        zoomStretch(
          view,
          durationMicros,
          WHEEL_BASE ** (event.deltaY * (event.ctrlKey ? 5 : 1)),
          now.fromMicros + ((event.clientX - box.left) / box.width) * length,
        )
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  }, [view, durationMicros])
  usePinch(host, ({ factor, clientX, dx }) => {
    zoomStretch(view, durationMicros, 1 / factor, timeAt(clientX))
    panStretch(view, durationMicros, -dx * perPixel())
  })

  const scrub = useDrag((event) => {
    const picked = momentUnder(found.moments, timeAt(event.clientX))
    if (picked) view.setState({ selected: picked.id })
    player.scrub(timeAt(event.clientX))
    return ({ clientX }) => player.scrub(timeAt(clientX))
  })
  const current = found.moments.find((m) => m.id === selected) ?? null
  const place = (t: Micros) => xOf({ width: 100, fromMicros, toMicros }, t)
  const onPointerDown = (event: ReactPointerEvent) => event.isPrimary && scrub(event)
  return (
    <Box
      ref={host}
      data-testid="stretch-band"
      onPointerDown={onPointerDown}
      sx={{
        position: 'relative',
        height: STRETCH_HEIGHT,
        border: 1,
        borderColor: 'divider',
        touchAction: 'none',
        overflow: 'hidden',
        cursor: 'crosshair',
      }}
    >
      <Box
        component="canvas"
        ref={canvas}
        role="img"
        aria-label={wording.theMagnifiedStretchPicturesLevel}
        sx={{ width: '100%', height: '100%', display: 'block' }}
      />
      {current &&
        (['in', 'out'] as const).map((which) => (
          <EdgeHandle
            key={`${current.id} ${which}`}
            moment={current}
            which={which}
            percent={place(which === 'in' ? current.inMicros : current.outMicros)}
            perPixel={perPixel}
            onMove={(t, gesture) => adjust(session, { recording, moment: current, which, t }, gesture)}
          />
        ))}
      <BandPlayhead fromMicros={fromMicros} toMicros={toMicros} />
    </Box>
  )
}

function momentUnder(moments: readonly Moment[], t: Micros): Moment | null {
  return moments.find((m) => m.state !== 'dropped' && t >= m.inMicros && t < m.outMicros) ?? null
}

/** The moment being shown, as a line. Moved without React, twelve times a second. */
function BandPlayhead({ fromMicros, toMicros }: { fromMicros: Micros; toMicros: Micros }) {
  const { player } = useSpotContext()
  const line = useRef<HTMLDivElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (line.current) line.current.style.left = `${xOf({ width: 100, fromMicros, toMicros }, t)}%`
      }),
    [player, fromMicros, toMicros],
  )
  return (
    <Box
      ref={line}
      aria-hidden
      sx={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        width: 0,
        borderLeft: `2px solid ${palette.haw}`,
        pointerEvents: 'none',
      }}
    />
  )
}
