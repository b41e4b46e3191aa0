import type { SpeechStretch } from '../sound/ducking'
import type { Micros } from '../time/micros'

/** A piece of a text with the time at which it seems to be spoken. */
export interface LinedUp {
  text: string
  fromMicros: Micros
  toMicros: Micros
}

/** Longer pieces than this are parted at the ends of phrases: two lines of a caption. */
const MAX_LETTERS = 84

/** Shorter sentences go with the one that follows: nobody pauses after them for sure. */
const MIN_LETTERS = 16

/** Pieces may begin in pauses, or every so often inside speech. */
const STEP_MICROS = 100_000

/**
 * A piece's length is judged against what its letters ask for; a boundary inside speech costs as much as being this
 * wrong, squared.
 */
const COST_INSIDE_SPEECH = 0.6
/** A boundary in a pause gains up to this, in full from a pause of this length on. */
const GAIN_IN_PAUSE = 0.5
const FULL_PAUSE_MICROS = 700_000

/** How far from its place by letters alone a boundary is looked for. */
const REACH_MICROS = 15_000_000

/** A text as pieces for captions: sentences, and phrases where they are long. Lines of their own stay apart. */
export function piecesOf(text: string): string[] {
  return text.split(/\n+/).flatMap((line) => {
    const joined: string[] = []
    for (const { segment } of new Intl.Segmenter(undefined, { granularity: 'sentence' }).segment(line)) {
      const sentence = segment.trim()
      const before = joined.at(-1)
      if (sentence === '') continue
      if (before !== undefined && before.length < MIN_LETTERS) joined[joined.length - 1] = `${before} ${sentence}`
      else joined.push(sentence)
    }
    return joined.flatMap(parted)
  })
}

function parted(sentence: string): string[] {
  if (sentence.length <= MAX_LETTERS) return [sentence]
  const middle = sentence.length / 2
  const ends = [...sentence.matchAll(/[,;:–—、，]\s*/gu)]
    .map((m) => m.index + m[0].length)
    .filter((at) => at > sentence.length * 0.2 && at < sentence.length * 0.8)
  const spaces = [...sentence.matchAll(/\s+/gu)].map((m) => m.index + m[0].length)
  const at = [...(ends.length > 0 ? ends : spaces)].sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle))[0]
  if (at === undefined) return [sentence]
  return [...parted(sentence.slice(0, at).trim()), ...parted(sentence.slice(at).trim())]
}

/** A place where a piece may begin: `spoken` is speech before it, µs; `pause` the silence there, 0 inside speech. */
interface Place {
  spoken: number
  pause: Micros
  /** Where what ends here ends, and where what begins here begins: recording time. */
  end: Micros
  start: Micros
}

function placesIn(speech: readonly SpeechStretch[]): Place[] {
  const places: Place[] = []
  let spoken = 0
  speech.forEach(({ fromMicros, toMicros }, i) => {
    const before = speech[i - 1]
    places.push({
      spoken,
      pause: before ? fromMicros - before.toMicros : FULL_PAUSE_MICROS,
      end: before?.toMicros ?? fromMicros,
      start: fromMicros,
    })
    for (let t = fromMicros + STEP_MICROS; t < toMicros; t += STEP_MICROS)
      places.push({ spoken: spoken + t - fromMicros, pause: 0, end: t, start: t })
    spoken += toMicros - fromMicros
  })
  const last = speech.at(-1)
  if (last) places.push({ spoken, pause: FULL_PAUSE_MICROS, end: last.toMicros, start: last.toMicros })
  return places
}

/**
 * Lines a known text up with the speech that was found: pieces in order, each as long as its letters ask for as near
 * as may be, beginning in pauses rather than inside speech, the more so the longer they are. Empty when there is no
 * speech.
 */
export function lineUpText(text: string, speech: readonly SpeechStretch[]): LinedUp[] {
  const pieces = piecesOf(text)
  const places = placesIn(speech)
  const total = places.at(-1)?.spoken ?? 0
  if (pieces.length === 0 || total === 0) return []
  const weights = pieces.map((p) => [...p.matchAll(/[\p{L}\p{N}]/gu)].length + 2)
  const perLetter = total / weights.reduce((a, b) => a + b, 0)
  const costOf = ({ pause }: Place) =>
    pause > 0 ? -GAIN_IN_PAUSE * Math.min(1, pause / FULL_PAUSE_MICROS) : COST_INSIDE_SPEECH ** 2
  // best[j]: least cost of having placed all pieces so far so that the next begins at place j; from[i][j]: where
  // piece i began then.
  let best = places.map((_, j) => (j === 0 ? 0 : Infinity))
  const from: Int32Array[] = []
  let expected = 0
  weights.forEach((weight, i) => {
    const wanted = weight * perLetter
    expected += wanted
    const isLast = i === pieces.length - 1
    const next = places.map(() => Infinity)
    const began = new Int32Array(places.length).fill(-1)
    for (let j = 1; j < places.length; j++) {
      const end = places[j] as Place
      if (isLast ? j !== places.length - 1 : Math.abs(end.spoken - expected) > REACH_MICROS) continue
      for (let k = j - 1; k >= 0; k--) {
        const length = end.spoken - (places[k] as Place).spoken
        if (length > 3 * wanted + 2 * REACH_MICROS) break
        const so = best[k] as number
        if (so === Infinity) continue
        const cost = so + Math.log((length + STEP_MICROS) / (wanted + STEP_MICROS)) ** 2 + (isLast ? 0 : costOf(end))
        if (cost < (next[j] as number)) {
          next[j] = cost
          began[j] = k
        }
      }
    }
    best = next
    from.push(began)
  })
  const made: LinedUp[] = []
  let j = places.length - 1
  for (let i = pieces.length - 1; i >= 0; i--) {
    const k = (from[i] as Int32Array)[j] ?? -1
    // More pieces than places: what is left shares the beginning.
    if (k < 0) return evenly(pieces, weights, places)
    made.unshift({
      text: pieces[i] as string,
      fromMicros: (places[k] as Place).start,
      toMicros: (places[j] as Place).end,
    })
    j = k
  }
  return made
}

/** By letters alone, where nothing better is to be had. */
function evenly(pieces: readonly string[], weights: readonly number[], places: readonly Place[]): LinedUp[] {
  const [first, last] = [places[0] as Place, places.at(-1) as Place]
  const all = weights.reduce((a, b) => a + b, 0)
  let passed = 0
  return pieces.map((text, i) => {
    const fromMicros = first.start + Math.round(((last.end - first.start) * passed) / all)
    passed += weights[i] ?? 0
    return { text, fromMicros, toMicros: first.start + Math.round(((last.end - first.start) * passed) / all) }
  })
}
