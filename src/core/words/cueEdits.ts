import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import type { CueId, RecordingId } from '../model/ids'
import { MAX_CUE_LENGTH, MAX_CUE_WORDS, type Cue } from '../model/words'
import { timedTokens } from './tokens'

/** A cue is never shorter than this. */
export const MIN_CUE_MICROS = 200_000

/** Cues in their order: by recording, then by time. */
export function inOrder(cues: readonly Cue[]): Cue[] {
  const recordings = [...new Set(cues.map((c) => c.recordingId))]
  return recordings.flatMap((id) =>
    cues.filter((c) => c.recordingId === id).sort((a, b) => a.fromMicros - b.fromMicros),
  )
}

/** The words of a cue that lie between two characters of its text, with their times; empty when none were timed. */
function wordsBetween(cue: Cue, from: number, to: number): Cue['words'] {
  if (cue.words.length === 0) return []
  return timedTokens(cue)
    .filter((t) => t.from >= from && t.to <= to)
    .map((t) => ({
      text: cue.text.slice(t.from, t.to),
      fromMicros: t.fromMicros,
      toMicros: Math.max(t.fromMicros + 1, t.toMicros),
    }))
}

/**
 * Splits a cue where its text is split: the second begins when its first word is said. The same cues when there is
 * nothing to split off, in text or in time.
 */
export function splitCue(cues: readonly Cue[], id: CueId, at: number, newId: CueId): Cue[] {
  const cue = cues.find((c) => c.id === id)
  if (!cue || cue.text.slice(0, at).trim() === '' || cue.text.slice(at).trim() === '') return [...cues]
  const least = Math.min(MIN_CUE_MICROS, Math.floor((cue.toMicros - cue.fromMicros) / 2))
  if (least < 1) return [...cues]
  const next = timedTokens(cue).find((t) => t.from >= at || t.to > at)
  const middle = Math.round(
    Math.min(
      cue.toMicros - least,
      Math.max(cue.fromMicros + least, next?.fromMicros ?? (cue.fromMicros + cue.toMicros) / 2),
    ),
  )
  const first: Cue = { ...cue, text: cue.text.slice(0, at).trim(), toMicros: middle, words: wordsBetween(cue, 0, at) }
  const second: Cue = {
    ...cue,
    id: newId,
    text: cue.text.slice(at).trim(),
    fromMicros: middle,
    words: wordsBetween(cue, at, cue.text.length),
  }
  return cues.flatMap((c) => (c.id === id ? [first, second] : [c]))
}

/**
 * Joins a cue to the one before it in its recording. `at`: where in the joined text the two meet; null when there is
 * none before, or no room for both in one.
 */
export function joinToPrevious(cues: readonly Cue[], id: CueId): { cues: Cue[]; id: CueId; at: number } | null {
  const index = cues.findIndex((c) => c.id === id)
  const [before, cue] = [cues[index - 1], cues[index]]
  if (!before || !cue || before.recordingId !== cue.recordingId) return null
  const parts = [before.text.trim(), cue.text.trim()].filter((t) => t !== '')
  const text = parts.join(' ')
  if (text.length > MAX_CUE_LENGTH) return null
  const words =
    before.words.length > 0 && cue.words.length > 0 ? [...before.words, ...cue.words].slice(0, MAX_CUE_WORDS) : []
  const joined: Cue = { ...before, text, toMicros: Math.max(before.toMicros, cue.toMicros), words }
  return {
    cues: cues.flatMap((c) => {
      if (c.id === id) return []
      return c.id === before.id ? [joined] : [c]
    }),
    id: before.id,
    at: before.text.trim().length + (parts.length > 1 ? 1 : 0),
  }
}

/**
 * Moves a cue's start or end to `t`, as far as its other end allows. Its words go along when their times were only
 * shared out.
 */
export function moveEdge(cues: readonly Cue[], id: CueId, which: 'from' | 'to', t: Micros): Cue[] {
  return inOrder(
    cues.map((c) => {
      if (c.id !== id) return c
      return which === 'from'
        ? { ...c, fromMicros: Math.max(0, Math.min(t, c.toMicros - MIN_CUE_MICROS)) }
        : { ...c, toMicros: Math.max(t, c.fromMicros + MIN_CUE_MICROS) }
    }),
  )
}

/**
 * An empty cue at `t` for what is said there, as long as there is room up to the next, two seconds at most; null
 * where one is already.
 */
export function blankCueAt(cues: readonly Cue[], recordingId: RecordingId, t: Micros, id: CueId): Cue | null {
  const own = cues.filter((c) => c.recordingId === recordingId)
  if (own.some((c) => c.fromMicros <= t && t < c.toMicros)) return null
  const next = own
    .filter((c) => c.fromMicros > t)
    .reduce((least, c) => Math.min(least, c.fromMicros), t + 2 * MICROS_PER_SECOND)
  if (next - t < MIN_CUE_MICROS) return null
  return { id, recordingId, fromMicros: t, toMicros: next, text: '', words: [], speakerId: null }
}

/** What a search finds in the texts of cues. */
export interface TextMatch {
  cueId: CueId
  from: number
  to: number
}

/** Every place where `wanted` stands, whole words alone when asked, capitals or not alike. */
export function findText(cues: readonly Cue[], wanted: string, wholeWords: boolean): TextMatch[] {
  if (wanted === '') return []
  const escaped = wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  const pattern = new RegExp(wholeWords ? `(?<![\\p{L}\\p{N}])${escaped}(?![\\p{L}\\p{N}])` : escaped, 'giu')
  return cues.flatMap((cue) =>
    [...cue.text.matchAll(pattern)].map((m) => ({ cueId: cue.id, from: m.index, to: m.index + m[0].length })),
  )
}

/** Puts `replacement` in every place that was found, in as much text as a cue holds. */
export function replaceText(cues: readonly Cue[], found: readonly TextMatch[], replacement: string): Cue[] {
  return cues.map((cue) => {
    const places = found.filter((f) => f.cueId === cue.id)
    if (places.length === 0) return cue
    return {
      ...cue,
      text: places
        .sort((a, b) => b.from - a.from)
        .reduce((text, { from, to }) => text.slice(0, from) + replacement + text.slice(to), cue.text)
        .slice(0, MAX_CUE_LENGTH),
    }
  })
}
