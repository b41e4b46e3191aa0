import { useEffect, useRef, useState } from 'react'
import type { Cue } from '@/core/model/words'
import type { SpeechStretch } from '@/core/sound/ducking'
import { saidWords, timedPieces, type TimedPiece } from '@/core/words/align/timedPieces'
import { lineUpText } from '@/core/words/lineUpText'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { alignWithSound } from '@/media/speech/aligner'
import { useBenchContext, usePassage } from '../benchContext'
import { useSpeechHere } from './useSpeechHere'

/** Captions so near each other are heard together; each is looked for so far beside where it stands. */
const TOGETHER_MICROS = MICROS_PER_SECOND
const BESIDE_MICROS = MICROS_PER_SECOND / 2

/** `heard`: of the words that are said, how many were made out. */
export type TimedText =
  | { outcome: 'done'; pieces: TimedPiece[]; heard: number; all: number }
  | { outcome: 'other-language' | 'failed'; pieces: TimedPiece[] }
  | { outcome: 'stopped' | 'silent' }
export type CuesOutcome =
  | { kind: 'done'; timed: Pick<Cue, 'id' | 'fromMicros' | 'toMicros' | 'words'>[] }
  | { kind: 'stopped' }
  | { kind: 'other-language' }
  | { kind: 'failed'; detail: string }

/** Finds when the words of a text, or of captions, are said in the recording that is worked on. */
export function useAlign() {
  const { files } = useBenchContext()
  const { recording } = usePassage()
  const listen = useSpeechHere()
  const running = useRef<AbortController | null>(null)
  const [share, setShare] = useState<number | null>(null)
  useEffect(() => () => running.current?.abort(), [])
  const { id, originMicros } = recording
  const align = async (
    pieces: readonly TimedPiece[],
    speech: readonly SpeechStretch[],
    onShare: (share: number) => void,
  ) => {
    const file = files.get(id)
    if (!file) return { kind: 'stopped' } as const
    const { signal } = (running.current = new AbortController())
    return alignWithSound({ id, file, originMicros }, saidWords(pieces), speech, { onShare, signal })
  }
  /** A text lined up with the speech that is heard; by its pauses alone where its words cannot be made out. */
  const timeText = async (text: string): Promise<TimedText> => {
    const speech = await listen()
    const lined = lineUpText(text, speech).map((piece) => ({ ...piece, words: [] }))
    if (lined.length === 0) return { outcome: 'silent' }
    const aligned = await align(lined, speech, setShare)
    setShare(null)
    if (aligned.kind === 'stopped') return { outcome: 'stopped' }
    if (aligned.kind !== 'done') return { outcome: aligned.kind, pieces: lined }
    const heard = aligned.words.filter((w) => w !== null).length
    return { outcome: 'done', pieces: timedPieces(lined, aligned.words), heard, all: aligned.words.length }
  }
  /** The times of the words of captions, each looked for near where it stands. */
  const timeCues = async (cues: readonly Cue[]): Promise<CuesOutcome> => {
    const timed: Extract<CuesOutcome, { kind: 'done' }>['timed'] = []
    const groups = groupsOf(cues)
    for (const [n, group] of groups.entries()) {
      const fromMicros = Math.max(0, (group[0]?.fromMicros ?? 0) - BESIDE_MICROS)
      const toMicros = Math.min(recording.durationMicros, (group.at(-1)?.toMicros ?? 0) + BESIDE_MICROS)
      const aligned = await align(group, [{ fromMicros, toMicros }], (part) => setShare((n + part) / groups.length))
      if (aligned.kind !== 'done') return aligned
      timedPieces(group, aligned.words).forEach((piece, i) => {
        const cue = group[i]
        if (cue && piece.words.length > 0) {
          const { words, ...span } = piece
          timed.push({ id: cue.id, words, fromMicros: span.fromMicros, toMicros: span.toMicros })
        }
      })
    }
    setShare(null)
    return { kind: 'done', timed }
  }
  return { timeText, timeCues, share, stop: () => running.current?.abort() }
}

/** Captions that follow each other closely. */
function groupsOf(cues: readonly Cue[]): Cue[][] {
  const groups: Cue[][] = []
  for (const cue of cues) {
    const group = groups.at(-1)
    if (group && cue.fromMicros - (group.at(-1)?.toMicros ?? 0) < TOGETHER_MICROS) group.push(cue)
    else groups.push([cue])
  }
  return groups
}
