import type { Reason, Weights } from '../model/spotting'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { LOUDNESS_STEP_MICROS, PART_MICROS, type Analysis } from './analysis'
import { speechOfAnalysis } from './speech'
import { slidingMedian } from './slidingMedian'

/** Steps of liveliness: half a second. */
export const LIVELINESS_STEP_MICROS: Micros = MICROS_PER_SECOND / 2

/** What counts as surroundings: this much before and after. */
const SURROUNDINGS_STEPS = 120

/** Loudness below this is silence, LUFS; without a floor every word after silence would be a sensation. */
const SILENCE_LUFS = -50

/** So far over its surroundings a sign counts in full. */
const FULL_DECIBELS = 16
/** A shout is rarer than a raised voice by more than its decibels say. */
const LOUDNESS_POWER = 2
const FULL_TIMES_MOTION = 3
const FULL_SPEECH_SHARE = 0.7

/** Motion under this is a picture standing still, whatever its surroundings. */
const MIN_MOTION = 0.004

/** Speech is counted over this many steps around a moment. */
const SPEECH_STEPS = 6

/**
 * How lively a recording is over time, one value for each {@link LIVELINESS_STEP_MICROS} from its start; 0 where
 * nothing is known yet.
 */
export interface Liveliness {
  /** Weighted sum of the signs below, 0..1. */
  score: Float32Array
  /** Loudness over the surroundings' median, dB; never below 0. */
  decibelsOver: Float32Array
  /** Motion as a multiple of the surroundings' median; 1 where it is usual. */
  timesMotion: Float32Array
  /** Share of speech over the surroundings' share, 0..1. */
  speechOver: Float32Array
}

/** Measures everything known of a recording so far against its own surroundings. */
export function livelinessOf(analysis: Analysis, weights: Weights): Liveliness {
  const steps = Math.ceil(analysis.durationMicros / LIVELINESS_STEP_MICROS)
  const loudness = loudnessSteps(analysis, steps)
  const motion = motionSteps(analysis, steps)
  const speech = speechSteps(analysis, steps)
  const usualLoudness = slidingMedian(loudness, SURROUNDINGS_STEPS, SILENCE_LUFS, 0)
  const usualMotion = slidingMedian(motion, SURROUNDINGS_STEPS, 0, 1)
  const usualSpeech = movingMean(speech, SURROUNDINGS_STEPS)
  const nearSpeech = movingMean(speech, SPEECH_STEPS / 2)
  const sum = weights.loudness + weights.motion + weights.speech || 1
  const all: Liveliness = {
    score: new Float32Array(steps),
    decibelsOver: new Float32Array(steps),
    timesMotion: new Float32Array(steps).fill(1),
    speechOver: new Float32Array(steps),
  }
  for (let i = 0; i < steps; i++) {
    const over = Math.max(0, (loudness[i] ?? SILENCE_LUFS) - (usualLoudness[i] ?? SILENCE_LUFS))
    const times = (motion[i] ?? 0) / Math.max(MIN_MOTION, usualMotion[i] ?? 0)
    const spoken = Math.max(0, (nearSpeech[i] ?? 0) - (usualSpeech[i] ?? 0))
    all.decibelsOver[i] = over
    all.timesMotion[i] = times
    all.speechOver[i] = spoken
    const parts =
      weights.loudness * Math.min(1, over / FULL_DECIBELS) ** LOUDNESS_POWER +
      weights.motion * Math.min(1, Math.max(0, (times - 1) / (FULL_TIMES_MOTION - 1))) +
      weights.speech * Math.min(1, spoken / FULL_SPEECH_SHARE)
    all.score[i] = parts / sum
  }
  all.score = smoothed(all.score)
  return all
}

/** Loudness of each step, LUFS: its loudest tenth of a second but one, so that a single click does not count. */
function loudnessSteps({ sound }: Analysis, steps: number): Float32Array {
  const row = new Float32Array(steps).fill(SILENCE_LUFS)
  const perStep = LIVELINESS_STEP_MICROS / LOUDNESS_STEP_MICROS
  for (const [part, { loudness }] of sound) {
    const first = (part * PART_MICROS) / LIVELINESS_STEP_MICROS
    for (let i = 0; i * perStep < loudness.length; i++)
      row[first + i] = Math.max(
        SILENCE_LUFS,
        secondLoudest(loudness, i * perStep, Math.min(loudness.length, (i + 1) * perStep)),
      )
  }
  return row
}

/**
 * The loudest but one of values `from` up to `to`; the only one where there is no other. Worked out again with every
 * part that comes in, so without sorting.
 */
function secondLoudest(loudness: Float32Array, from: number, to: number): number {
  let first = -Infinity
  let second = -Infinity
  for (let i = from; i < to; i++) {
    const value = loudness[i] as number
    if (value > first) {
      second = first
      first = value
    } else if (value > second) second = value
  }
  return second === -Infinity ? first : second
}

/** Motion of each step: the change found at the next picture looked at, spread over the time since the one before. */
function motionSteps({ pictures }: Analysis, steps: number): Float32Array {
  const row = new Float32Array(steps)
  const all = [...pictures.values()].flatMap((p) => p.motion).sort((a, b) => a.micros - b.micros)
  let last = 0
  for (const { micros, amount } of all) {
    const to = Math.min(steps, Math.ceil(micros / LIVELINESS_STEP_MICROS))
    row.fill(amount, Math.min(last, to), to)
    last = to
  }
  return row
}

/** Share of each step in which somebody speaks. */
function speechSteps(analysis: Analysis, steps: number): Float32Array {
  const row = new Float32Array(steps)
  for (const { fromMicros, toMicros } of speechOfAnalysis(analysis))
    for (
      let i = Math.floor(fromMicros / LIVELINESS_STEP_MICROS);
      i * LIVELINESS_STEP_MICROS < toMicros && i < steps;
      i++
    ) {
      const start = i * LIVELINESS_STEP_MICROS
      const inside = Math.min(toMicros, start + LIVELINESS_STEP_MICROS) - Math.max(fromMicros, start)
      row[i] = Math.min(1, (row[i] ?? 0) + inside / LIVELINESS_STEP_MICROS)
    }
  return row
}

/** Mean over `reach` steps before and after, fewer at the ends. */
function movingMean(row: Float32Array, reach: number): Float32Array {
  const sums = new Float64Array(row.length + 1)
  for (let i = 0; i < row.length; i++) sums[i + 1] = (sums[i] ?? 0) + (row[i] ?? 0)
  return row.map((_, i) => {
    const from = Math.max(0, i - reach)
    const to = Math.min(row.length, i + reach + 1)
    return ((sums[to] ?? 0) - (sums[from] ?? 0)) / (to - from)
  })
}

/**
 * Each value with a quarter of either neighbour's: steady enough to find one peak for one event, and short events
 * keep most of their height.
 */
function smoothed(row: Float32Array): Float32Array {
  return row.map((v, i) => v / 2 + (row[Math.max(0, i - 1)] ?? 0) / 4 + (row[Math.min(row.length - 1, i + 1)] ?? 0) / 4)
}

/** Why a moment is lively: every sign that is out of the usual there, the strongest first. */
export function reasonsAt({ decibelsOver, timesMotion, speechOver }: Liveliness, step: number): Reason[] {
  const near = (row: Float32Array) => Math.max(row[step - 1] ?? 0, row[step] ?? 0, row[step + 1] ?? 0)
  const [decibels, times, speech] = [near(decibelsOver), near(timesMotion), near(speechOver)]
  const reasons: [number, Reason][] = []
  if (decibels >= 3)
    reasons.push([decibels / FULL_DECIBELS, { kind: 'loud', decibelsOver: Math.round(decibels * 10) / 10 }])
  if (times >= 1.5)
    reasons.push([times / FULL_TIMES_MOTION, { kind: 'motion', timesUsual: Math.round(times * 10) / 10 }])
  if (speech >= 0.2)
    reasons.push([speech / FULL_SPEECH_SHARE, { kind: 'speech-burst', shareOver: Math.round(speech * 100) / 100 }])
  return reasons.sort(([a], [b]) => b - a).map(([, reason]) => reason)
}
