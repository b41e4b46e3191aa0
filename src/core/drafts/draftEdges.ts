import { clampMicros, MICROS_PER_SECOND, type Micros } from '../time/micros'
import type { SpeechStretch } from '../sound/ducking'
import { joinedNear, sentencesOf } from './sentences'

/** What happens this soon after something belongs to the same story. */
const STORY_GAP_MICROS: Micros = 1.6 * MICROS_PER_SECOND

/** Left before the first sound and after the last, so that neither is clipped. */
const BEFORE_MICROS: Micros = 150_000
const AFTER_MICROS: Micros = 250_000

/** What is over sooner than this is nothing to post. */
const LEAST_MICROS: Micros = 5 * MICROS_PER_SECOND

interface Edges {
  inMicros: Micros
  outMicros: Micros
}

/** What is known of the place: `lively`: from where the score rises to its peak until it has fallen again. */
interface Around {
  lively: Edges
  peakMicros: Micros
  speech: readonly SpeechStretch[]
  durationMicros: Micros
  /** No draft is longer. */
  mostMicros: Micros
}

/**
 * Where a draft begins and ends: with the first and the last thing that belongs to the story about a lively stretch.
 * What is said without a long pause before and after it does, as far as there is room for whole sentences. Neither
 * edge lies inside what is said, unless a single sentence is longer than there is room for.
 */
export function draftEdges({ lively, peakMicros, speech, durationMicros, mostMicros }: Around): Edges {
  const sentences = sentencesOf(speech)
  const core: SpeechStretch = { fromMicros: lively.inMicros, toMicros: lively.outMicros }
  const inOrder = [...sentences, core].sort((a, b) => a.fromMicros - b.fromMicros)
  const story = joinedNear(inOrder, STORY_GAP_MICROS).find(
    (s) => s.fromMicros <= core.fromMicros && s.toMicros >= core.toMicros,
  )
  const whole = withAir(story ?? core, sentences, durationMicros)
  const fits = whole.outMicros - whole.inMicros <= mostMicros
  const edges = fits ? whole : shortened(sentences, core, peakMicros, mostMicros, durationMicros)
  const isShort = edges.outMicros - edges.inMicros < Math.min(LEAST_MICROS, mostMicros, durationMicros)
  return isShort
    ? lengthened(edges, sentences, Math.min(LEAST_MICROS, mostMicros, durationMicros), durationMicros)
    : edges
}

/** With a little before and after it, as far as nobody speaks there. */
function withAir({ fromMicros, toMicros }: SpeechStretch, sentences: readonly SpeechStretch[], end: Micros): Edges {
  const before = sentences.findLast((s) => s.toMicros <= fromMicros)?.toMicros ?? 0
  const after = sentences.find((s) => s.fromMicros >= toMicros)?.fromMicros ?? end
  return { inMicros: Math.max(before, fromMicros - BEFORE_MICROS), outMicros: Math.min(after, toMicros + AFTER_MICROS) }
}

/**
 * The best that there is room for: what holds the peak and most of the core, then the longest, with its edges in
 * pauses. Where there is none, one long sentence is cut about the peak.
 */
function shortened(
  sentences: readonly SpeechStretch[],
  core: SpeechStretch,
  peakMicros: Micros,
  mostMicros: Micros,
  durationMicros: Micros,
): Edges {
  const most = mostMicros - BEFORE_MICROS - AFTER_MICROS
  const isSaid = (t: Micros) => sentences.some((s) => t > s.fromMicros && t < s.toMicros)
  const pauses = [...sentences.flatMap((s) => [s.fromMicros, s.toMicros]), core.fromMicros, core.toMicros].filter(
    (t) => !isSaid(t),
  )
  const starts = pauses.filter((t) => t <= peakMicros)
  const ends = pauses.filter((t) => t > peakMicros)
  const held = ({ fromMicros, toMicros }: SpeechStretch) =>
    Math.min(toMicros, core.toMicros) - Math.max(fromMicros, core.fromMicros)
  const [best] = starts
    .flatMap((fromMicros) => ends.map((toMicros) => ({ fromMicros, toMicros })))
    .filter((s) => s.toMicros - s.fromMicros <= most)
    .sort((a, b) => held(b) - held(a) || b.toMicros - b.fromMicros - (a.toMicros - a.fromMicros))
  if (best) return withAir(best, sentences, durationMicros)
  const inMicros = Math.round(
    clampMicros(peakMicros - (2 * mostMicros) / 3, 0, Math.max(0, durationMicros - mostMicros)),
  )
  return { inMicros, outMicros: Math.min(durationMicros, inMicros + mostMicros) }
}

/** Made `least` long with quiet from both sides, as far as no sentence is cut into. */
function lengthened(
  { inMicros, outMicros }: Edges,
  sentences: readonly SpeechStretch[],
  least: Micros,
  end: Micros,
): Edges {
  const missing = least - (outMicros - inMicros)
  const before = sentences.findLast((s) => s.toMicros <= inMicros)?.toMicros ?? 0
  const after = sentences.find((s) => s.fromMicros >= outMicros)?.fromMicros ?? end
  const later = clampMicros(outMicros + missing / 2, outMicros, Math.max(outMicros, after - BEFORE_MICROS))
  const earlier = clampMicros(later - least, Math.min(inMicros, before + BEFORE_MICROS), inMicros)
  return { inMicros: Math.round(earlier), outMicros: Math.round(Math.min(end, Math.max(later, earlier + 1))) }
}
