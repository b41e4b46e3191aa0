'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef, useState, type FocusEvent, type KeyboardEvent } from 'react'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { MAX_CUE_LENGTH, type Cue, type Speaker } from '@/core/model/words'
import { joinToPrevious } from '@/core/words/cueEdits'
import { palette, textSize } from '@/ui/theme'
import { useDrag } from '@/ui/useDrag'
import { joinBefore, moveCueEdge, removeCue, setCueText, splitCaption } from '@/edit/words'
import { newId, type CueId } from '@/core/model/ids'
import { useBenchContext } from '../benchContext'
import type { Caret } from './CueLines'
import { SpeakerChip } from './SpeakerChip'
import { wording } from './wording'

/** Alt + arrows move an edge by this. */
const NUDGE_MICROS = MICROS_PER_SECOND / 20

export interface CueLineProps {
  cue: Cue
  speaker: Speaker | null
  top: number
  height: number
  /** How high it may become while it is written in. */
  room: number
  /** Recording time that one px stands for. */
  microsPerPixel: number
  caret: Caret | null
  onCaret: (caret: Caret) => void
  /** The caret leaves upwards or downwards. */
  onLeave: (by: 1 | -1, at: number | null) => void
  /** It was left with other words than it had, written in one gesture. */
  onWritten: (id: CueId, gesture: string) => void
}

/**
 * One caption as text beside its time. Enter splits it where the caret is, Backspace at its start joins it to the one
 * before, arrows lead from line to line; Alt and arrows move its start, with Shift its end; Alt and W choose who
 * speaks; Ctrl and Space play. Its edges are dragged.
 */
export function CueLine({
  cue,
  speaker,
  top,
  height,
  room,
  microsPerPixel,
  caret,
  onCaret,
  onLeave,
  onWritten,
}: CueLineProps) {
  const { session, player } = useBenchContext()
  const field = useRef<HTMLTextAreaElement>(null)
  const [choosing, setChoosing] = useState<HTMLElement | null>(null)
  /** Typing without leaving is one step of undo. */
  const gesture = useRef('')
  /** What it said when it was entered. */
  const before = useRef(cue.text)
  useEffect(() => {
    const element = field.current
    if (!caret || !element) return
    element.focus({ preventScroll: true })
    if (caret.at !== null) element.setSelectionRange(caret.at, caret.at)
  }, [caret])

  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    const { selectionStart, selectionEnd, value } = event.currentTarget
    const ctrl = event.ctrlKey || event.metaKey
    event.stopPropagation()
    const take = () => event.preventDefault()
    if (event.key === 'Escape') event.currentTarget.blur()
    else if (ctrl && event.key.toLowerCase() === 'z') {
      // The Bench's undo, not the field's, which knows nothing of splits and joins.
      take()
      if (event.shiftKey) session.redo()
      else session.undo()
      gesture.current = crypto.randomUUID()
      const { cues } = session.value.highlight.words
      const before = cues.findLast((c) => c.recordingId === cue.recordingId && c.fromMicros < cue.fromMicros)
      if (before && cues.every((c) => c.id !== cue.id)) onCaret({ id: before.id, at: before.text.length })
    } else if (ctrl && event.key === ' ') {
      take()
      player.toggle()
    } else if (event.altKey && event.code === 'KeyW') {
      take()
      setChoosing(event.currentTarget)
    } else if (event.key === 'Enter' && !event.shiftKey) {
      take()
      const made = newId<CueId>()
      const there = { id: cue.id, at: selectionStart, newId: made }
      if (splitCaption.why(session.value, there) === null && splitCaption(session, there)) onCaret({ id: made, at: 0 })
    } else if (event.key === 'Backspace' && selectionStart === 0 && selectionEnd === 0) {
      take()
      const joined = joinToPrevious(session.value.highlight.words.cues, cue.id)
      if (joined) {
        joinBefore(session, { id: cue.id })
        onCaret(joined)
      } else if (value === '') removeCue(session, { id: cue.id })
    } else if (event.key === 'Delete' && value === '') {
      take()
      removeCue(session, { id: cue.id })
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      take()
      const by = event.key === 'ArrowUp' ? -NUDGE_MICROS : NUDGE_MICROS
      moveCueEdge(
        session,
        { id: cue.id, which: event.shiftKey ? 'to' : 'from', t: (event.shiftKey ? cue.toMicros : cue.fromMicros) + by },
        gesture.current,
      )
    } else if (event.key === 'ArrowUp' && onFirstLine(event.currentTarget)) {
      take()
      onLeave(-1, null)
    } else if (event.key === 'ArrowDown' && onLastLine(event.currentTarget)) {
      take()
      onLeave(1, 0)
    }
  }
  const onFocus = ({ currentTarget }: FocusEvent<HTMLTextAreaElement>) => {
    gesture.current = crypto.randomUUID()
    before.current = cue.text
    if (document.activeElement === currentTarget && caret?.id !== cue.id) onCaret({ id: cue.id, at: null })
  }
  return (
    <Box
      data-testid="cue"
      // A click into the words is not one on the time beside them.
      onPointerDown={(e) => e.stopPropagation()}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        minHeight: height,
        pointerEvents: 'auto',
        containerType: 'inline-size',
        borderLeft: `3px solid ${speaker?.colour ?? palette.leaf}`,
        bgcolor: 'rgba(251,250,246,0.92)',
        '&:focus-within': { zIndex: 3, bgcolor: '#fff', boxShadow: '0 1px 6px rgba(32,38,31,0.22)' },
      }}
      style={{ transform: `translateY(${top}px)` }}
    >
      <Box
        component="textarea"
        ref={field}
        rows={1}
        aria-label={speaker ? wording.caption(speaker.name) : wording.captionCapital}
        placeholder={wording.whatIsSaidHere}
        maxLength={MAX_CUE_LENGTH}
        value={cue.text}
        dir="auto"
        spellCheck
        onChange={(e) => setCueText(session, { id: cue.id, text: e.target.value }, gesture.current)}
        onKeyDown={onKeyDown}
        onFocus={onFocus}
        onBlur={() => before.current !== cue.text && onWritten(cue.id, gesture.current)}
        sx={{
          display: 'block',
          width: '100%',
          boxSizing: 'border-box',
          height,
          maxHeight: room,
          pl: 1.5,
          pr: '24px',
          py: 0.5,
          border: 0,
          font: 'inherit',
          fontSize: textSize.note,
          lineHeight: 1.3,
          color: palette.ink,
          bgcolor: 'transparent',
          resize: 'none',
          overflow: 'hidden',
          fieldSizing: 'content',
          minHeight: height,
          '&:focus': { outline: `2px solid ${palette.leaf}`, outlineOffset: -2, maxHeight: 'none' },
          '&::placeholder': { color: palette.inkSoft, fontStyle: 'italic' },
          '@container (max-width: 110px)': { pr: 1 },
        }}
      />
      <SpeakerChip cue={cue} speaker={speaker} anchor={choosing} onOpen={setChoosing} />
      <Edge cue={cue} which="from" microsPerPixel={microsPerPixel} />
      <Edge cue={cue} which="to" microsPerPixel={microsPerPixel} />
    </Box>
  )
}

function onFirstLine({ value, selectionStart }: HTMLTextAreaElement): boolean {
  return !value.slice(0, selectionStart).includes('\n') && selectionStart === 0
}

function onLastLine({ value, selectionEnd }: HTMLTextAreaElement): boolean {
  return selectionEnd === value.length
}

/** The upper or lower edge of a caption: where it starts or ends. */
function Edge({ cue, which, microsPerPixel }: { cue: Cue; which: 'from' | 'to'; microsPerPixel: number }) {
  const { session } = useBenchContext()
  const dragging = useDrag(() => {
    const start = which === 'from' ? cue.fromMicros : cue.toMicros
    return ({ dy, gesture }) =>
      moveCueEdge(session, { id: cue.id, which, t: Math.round(start + dy * microsPerPixel) }, gesture)
  })
  return (
    <Box
      aria-hidden
      data-testid={`cue-${which}`}
      onPointerDown={dragging}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        height: 6,
        cursor: 'ns-resize',
        touchAction: 'none',
        ...(which === 'from' ? { top: -2 } : { bottom: -2 }),
        '&:hover': { bgcolor: palette.leaf, opacity: 0.5 },
      }}
    />
  )
}
