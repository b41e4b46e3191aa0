import type { CueId, SpeakerId } from '../model/ids'
import type { Cue, Words } from '../model/words'
import type { Micros } from '../time/micros'
import type { PlacedPassage, Run, TimeMap } from '../time/timeMap'
import { timedTokens, type TimedToken } from './tokens'

/**
 * A cue as it comes in the highlight: output time, end-exclusive; `tokens` are its words with theirs, in characters
 * of `text`.
 */
export interface OutputCue {
  cueId: CueId
  /** The passage that it is spoken in. */
  index: number
  fromMicros: Micros
  toMicros: Micros
  text: string
  tokens: TimedToken[]
  speakerId: SpeakerId | null
}

/** What is left of a cue for a shorter time than this is not shown. */
const MIN_MICROS = 150_000

/**
 * Cues as they come on the output clock, in order. What is cut out or struck out is not said, so it is not written
 * either.
 */
export function outputCues({ cues }: Pick<Words, 'cues'>, map: TimeMap): OutputCue[] {
  return map.passages
    .flatMap((placed) =>
      cues.filter((c) => c.recordingId === placed.passage.recordingId).flatMap((cue) => inPassage(cue, placed)),
    )
    .sort((a, b) => a.fromMicros - b.fromMicros)
}

function inPassage(cue: Cue, placed: PlacedPassage): OutputCue[] {
  const runs = placed.runs.filter((r) => r.inMicros < cue.toMicros && r.outMicros > cue.fromMicros)
  const first = runs[0]
  const last = runs.at(-1)
  if (!first || !last || cue.text.trim() === '') return []
  const fromMicros = outputIn(placed, first, Math.max(cue.fromMicros, first.inMicros))
  const toMicros = outputIn(placed, last, Math.min(cue.toMicros, last.outMicros))
  if (toMicros - fromMicros < MIN_MICROS) return []
  const whole = runs.length === 1 && cue.fromMicros >= first.inMicros && cue.toMicros <= first.outMicros
  const kept = timedTokens(cue).flatMap((token) => {
    const run = whole ? first : runs.find((r) => isSpokenIn(token, r))
    if (!run) return []
    const at = (t: Micros) => outputIn(placed, run, Math.min(Math.max(t, run.inMicros), run.outMicros))
    return [{ ...token, fromMicros: at(token.fromMicros), toMicros: at(token.toMicros) }]
  })
  if (kept.length === 0) return []
  return [
    {
      cueId: cue.id,
      index: placed.index,
      fromMicros,
      toMicros,
      speakerId: cue.speakerId,
      ...(whole ? { text: cue.text, tokens: kept } : withoutTheRest(cue.text, kept)),
    },
  ]
}

/** By its middle, so that a cut at the edge of a word does not take it along. */
const isSpokenIn = ({ fromMicros, toMicros }: TimedToken, { inMicros, outMicros }: Run) =>
  (fromMicros + toMicros) / 2 >= inMicros && (fromMicros + toMicros) / 2 < outMicros

const outputIn = ({ passage }: PlacedPassage, run: Run, t: Micros): Micros =>
  run.startMicros + Math.round(((t - run.inMicros) * 100) / passage.speedPercent)

/** A text of those words alone that were kept; what stood between two of them stays. */
function withoutTheRest(text: string, kept: readonly TimedToken[]): { text: string; tokens: TimedToken[] } {
  let made = ''
  const tokens = kept.map((token, i) => {
    const before = kept[i - 1]
    if (before) made += text.slice(before.to, token.from).match(/^\s*$/u)?.[0] ?? ' '
    const from = made.length
    made += text.slice(token.from, token.to)
    return { ...token, from, to: made.length }
  })
  return { text: made, tokens }
}

/**
 * The cues that are on at output time `t`; on the way through a join those of the passage that the moment belongs to.
 */
export function cuesAt(cues: readonly OutputCue[], index: number, t: Micros): OutputCue[] {
  return cues.filter((c) => c.index === index && c.fromMicros <= t && t < c.toMicros)
}
