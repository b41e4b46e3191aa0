import { regionIn } from '@/core/compose/regionIn'
import { whoSpeaks } from '@/core/detect/regions/whoSpeaks'
import { piecesOfSpeech, type Spoken } from '@/core/turns/turns'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Region } from '@/core/model/region'
import type { SpeechStretch } from '@/core/sound/ducking'
import { stirIn } from './looks'

/** Shorter pauses say little about how people stir while nobody speaks; they begin and end with a breath. */
const PAUSE_MICROS = 400_000
const BREATH_MICROS = 100_000

/** Eyes blink and hair sways whoever speaks: of a head only what is about the mouth is looked at. */
const lowerFace = ({ x, y, width, height }: Rect): Rect => ({ x, y: y + 0.4 * height, width, height: 0.6 * height })

/**
 * Who speaks when in a passage, by whose mouth stirs while somebody is heard, against how it stirs in the pauses: in
 * the head where one was seen, else in the whole region.
 */
export async function speakersIn(
  recording: Recording,
  file: Blob,
  passage: Passage,
  people: readonly Region[],
  speech: readonly SpeechStretch[],
): Promise<Spoken[]> {
  const own = speech.filter((s) => s.toMicros > passage.inMicros && s.fromMicros < passage.outMicros)
  const pieces = piecesOfSpeech(own)
  if (pieces.length === 0 || people.length < 2) return []
  const pauses = own.slice(1).flatMap(({ fromMicros }, i) => {
    const pause = { fromMicros: (own[i]?.toMicros ?? 0) + BREATH_MICROS, toMicros: fromMicros - BREATH_MICROS }
    return pause.toMicros - pause.fromMicros >= PAUSE_MICROS ? [pause] : []
  })
  const bounds = people.map((r) =>
    toEvenPixels(r.head ? lowerFace(r.head) : regionIn(passage, r, passage.inMicros).bounds, recording.video),
  )
  const seen = await stirIn(recording, file, bounds, [...pieces, ...pauses])
  const goesOn = pieces.map(({ fromMicros }, i) => fromMicros === pieces[i - 1]?.toMicros)
  const speakers = whoSpeaks(seen.slice(0, pieces.length), seen.slice(pieces.length), goesOn)
  return pieces.map((piece, i) => ({ ...piece, speaker: speakers[i] ?? null }))
}
