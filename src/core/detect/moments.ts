import type { Reason } from '../model/spotting'
import type { SpeechStretch } from '../sound/ducking'
import { clampMicros, MICROS_PER_SECOND, type Micros } from '../time/micros'
import { LIVELINESS_STEP_MICROS, reasonsAt, type Liveliness } from './liveliness'

/** A stretch that is proposed for a highlight; see core/model/spotting. */
export interface ProposedMoment {
  inMicros: Micros
  outMicros: Micros
  peakMicros: Micros
  score: number
  reasons: Reason[]
}

export interface ProposalSettings {
  /** How many at most. */
  count: number
  /** No moment is longer. */
  mostMicros: Micros
}

/** Below this nothing is worth a proposal. */
const MIN_SCORE = 0.05

/**
 * The rise begins, and the fall has ended, where the score is under this share of the peak's for {@link CALM_STEPS}.
 */
const EDGE_SHARE = 0.35
const CALM_STEPS = 4

/** What leads up to a moment and what it leaves behind belong to it. */
const BEFORE_RISE_MICROS = 4 * MICROS_PER_SECOND
const AFTER_FALL_MICROS = 2 * MICROS_PER_SECOND

/** In and out are moved by at most this much to fall into a pause or onto a shot's cut. */
const SNAP_MICROS = 2.5 * MICROS_PER_SECOND
const BREATH_MICROS = 150_000

/**
 * The liveliest moments, best first; none overlaps another. `speech` and `cuts` in order: what edges are snapped to.
 */
export function proposeMoments(
  liveliness: Liveliness,
  durationMicros: Micros,
  speech: readonly SpeechStretch[],
  cuts: readonly Micros[],
  settings: ProposalSettings,
): ProposedMoment[] {
  const { score } = liveliness
  const peaks = Array.from(score.keys())
    .filter(
      (i) =>
        (score[i] ?? 0) >= MIN_SCORE &&
        (score[i] ?? 0) >= (score[i - 1] ?? 0) &&
        (score[i] ?? 0) > (score[i + 1] ?? -1),
    )
    .sort((a, b) => (score[b] ?? 0) - (score[a] ?? 0))
  const moments: ProposedMoment[] = []
  for (const peak of peaks) {
    if (moments.length >= settings.count) break
    const peakMicros = Math.min(durationMicros, Math.round((peak + 0.5) * LIVELINESS_STEP_MICROS))
    if (moments.some((m) => peakMicros > m.inMicros && peakMicros < m.outMicros)) continue
    const rise = riseAndFall(score, peak)
    const wide = { inMicros: rise.inMicros - BEFORE_RISE_MICROS, outMicros: rise.outMicros + AFTER_FALL_MICROS }
    const edges = snapped(
      withinLength(wide, peakMicros, settings.mostMicros, durationMicros),
      rise,
      speech,
      cuts,
      settings.mostMicros,
    )
    const room = withoutOthers(edges, peakMicros, moments)
    if (room.outMicros - room.inMicros >= MICROS_PER_SECOND)
      moments.push({ ...room, peakMicros, score: Math.min(1, score[peak] ?? 0), reasons: reasonsAt(liveliness, peak) })
  }
  return moments
}

/** What leads up to a mark and what follows it, where nothing more is known. */
const BEFORE_MARK_MICROS = 10 * MICROS_PER_SECOND
const AFTER_MARK_MICROS = 5 * MICROS_PER_SECOND

/** In and out around a time somebody marked, snapped as those of proposals are. */
export function momentAround(
  peakMicros: Micros,
  durationMicros: Micros,
  speech: readonly SpeechStretch[],
  cuts: readonly Micros[],
  mostMicros: Micros,
): Pick<ProposedMoment, 'inMicros' | 'outMicros'> {
  const edges = { inMicros: peakMicros - BEFORE_MARK_MICROS, outMicros: peakMicros + AFTER_MARK_MICROS }
  const { inMicros, outMicros } = snapped(
    withinLength(edges, peakMicros, mostMicros, durationMicros),
    { inMicros: peakMicros, outMicros: peakMicros },
    speech,
    cuts,
    mostMicros,
  )
  return { inMicros, outMicros: Math.min(durationMicros, outMicros) }
}

type Edges = Pick<ProposedMoment, 'inMicros' | 'outMicros'>

/** Where the score begins to rise to a peak, a step of it, and where it has fallen again. */
export function riseAndFall(score: Float32Array, peak: number): Edges {
  const limit = (score[peak] ?? 0) * EDGE_SHARE
  const walk = (by: 1 | -1) => {
    let last = peak
    for (let i = peak; i >= 0 && i < score.length && Math.abs(i - last) <= CALM_STEPS; i += by)
      if ((score[i] ?? 0) >= limit) last = i
    return last
  }
  return { inMicros: walk(-1) * LIVELINESS_STEP_MICROS, outMicros: (walk(1) + 1) * LIVELINESS_STEP_MICROS }
}

/**
 * Held to the recording and to the length; what is too long keeps two thirds before its peak at most, as a story
 * does.
 */
function withinLength(
  { inMicros, outMicros }: Edges,
  peakMicros: Micros,
  mostMicros: Micros,
  durationMicros: Micros,
): Edges {
  const from = Math.max(0, inMicros)
  const to = Math.min(durationMicros, outMicros)
  if (to - from <= mostMicros) return { inMicros: from, outMicros: to }
  const before = Math.min(peakMicros - from, Math.max((mostMicros * 2) / 3, mostMicros - (to - peakMicros)))
  const start = Math.round(peakMicros - before)
  return { inMicros: start, outMicros: Math.min(to, start + mostMicros) }
}

/**
 * Into the pause before a sentence and the pause after one, or onto a shot's first frame, where one is near; never
 * into what is between rise and fall.
 */
function snapped(
  { inMicros, outMicros }: Edges,
  rise: Edges,
  speech: readonly SpeechStretch[],
  cuts: readonly Micros[],
  mostMicros: Micros,
): Edges {
  const starts = [...speech.map((s) => Math.max(0, s.fromMicros - BREATH_MICROS)), ...cuts]
  const ends = [...speech.map((s) => s.toMicros + BREATH_MICROS), ...cuts]
  const from = nearest(
    starts.filter((t) => t <= rise.inMicros),
    inMicros,
  )
  const to = nearest(
    ends.filter((t) => t >= rise.outMicros && t - from <= mostMicros),
    outMicros,
  )
  return to - from <= mostMicros ? { inMicros: from, outMicros: to } : { inMicros: from, outMicros: from + mostMicros }
}

function nearest(candidates: readonly Micros[], t: Micros): Micros {
  const best = candidates.reduce<Micros | null>(
    (found, c) =>
      Math.abs(c - t) <= SNAP_MICROS && (found === null || Math.abs(c - t) < Math.abs(found - t)) ? c : found,
    null,
  )
  return Math.round(best ?? t)
}

function withoutOthers({ inMicros, outMicros }: Edges, peakMicros: Micros, others: readonly Edges[]): Edges {
  const before = Math.max(0, ...others.filter((o) => o.outMicros <= peakMicros).map((o) => o.outMicros))
  const after = Math.min(Infinity, ...others.filter((o) => o.inMicros >= peakMicros).map((o) => o.inMicros))
  return { inMicros: clampMicros(inMicros, before, peakMicros), outMicros: clampMicros(outMicros, peakMicros, after) }
}
