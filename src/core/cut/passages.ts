import type { PassageId } from '../model/ids'
import { CUT } from '../model/join'
import type { Passage, Strike } from '../model/passage'
import type { Recording } from '../model/recording'
import { frameStartMicros, snapToFrame } from '../time/frameRate'
import { clampMicros, type Micros } from '../time/micros'
import { keptStretches, passageLength, recordingMicrosAt, type TimeMap } from '../time/timeMap'

/** What is needed of a recording to cut in it: its frames and its length. */
export type Footage = Pick<Recording, 'durationMicros'> & {
  video: Pick<Recording['video'], 'frameRate' | 'firstFrameMicros'>
}

/** The length of one frame of a recording. */
export function oneFrame({ video }: Footage): Micros {
  return frameStartMicros(1, video.frameRate)
}

/** The frame start nearest to `t`, inside the recording. */
export function onFrame(footage: Footage, t: Micros): Micros {
  const { frameRate, firstFrameMicros } = footage.video
  return snapToFrame(clampMicros(t, 0, footage.durationMicros), frameRate, firstFrameMicros)
}

/**
 * `passage` with its in or out point at the frame nearest to `t`; the two stay a frame apart and inside the
 * recording.
 */
export function trim(passage: Passage, which: 'in' | 'out', t: Micros, footage: Footage): Passage {
  const at = onFrame(footage, t)
  const frame = oneFrame(footage)
  const trimmed =
    which === 'in'
      ? withStart(passage, clampMicros(at, 0, passage.outMicros - frame))
      : { ...passage, outMicros: clampMicros(Math.max(at, passage.inMicros + frame), 0, footage.durationMicros) }
  return keptStretches(trimmed).length > 0 ? trimmed : passage
}

/** A passage that begins at another recording time; a picture that runs by itself begins as much sooner or later. */
function withStart(passage: Passage, inMicros: Micros): Passage {
  const { picture } = passage
  if (!picture) return { ...passage, inMicros }
  const late = ((inMicros - passage.inMicros) * 100) / passage.speedPercent
  return {
    ...passage,
    inMicros,
    picture: { ...picture, inMicros: Math.max(0, picture.inMicros + Math.round((late * picture.speedPercent) / 100)) },
  }
}

/** The same stretch length and strikes, `by` later (or earlier) in the recording; stopped at the recording's ends. */
export function slip(passage: Passage, by: Micros, footage: Footage): Passage {
  const moved = onFrame(
    footage,
    clampMicros(passage.inMicros + by, 0, footage.durationMicros - (passage.outMicros - passage.inMicros)),
  )
  const outMicros = Math.min(moved + passage.outMicros - passage.inMicros, footage.durationMicros)
  const shift = moved - passage.inMicros
  const strikes = passage.strikes.flatMap((s) =>
    s.toMicros + shift > 0 ? [{ fromMicros: Math.max(0, s.fromMicros + shift), toMicros: s.toMicros + shift }] : [],
  )
  const picture = passage.picture && { ...passage.picture, inMicros: Math.max(0, passage.picture.inMicros + shift) }
  return outMicros > moved ? { ...passage, inMicros: moved, outMicros, strikes, picture } : passage
}

/**
 * Cuts a passage in two at recording time `t`; unchanged when `t` is not inside. Joins and fades stay at the outer
 * ends, and every panel goes on with what it plays.
 */
export function split(
  passages: readonly Passage[],
  id: PassageId,
  t: Micros,
  newId: PassageId,
  footage: Footage,
): Passage[] {
  const place = passages.findIndex((p) => p.id === id)
  const passage = passages[place]
  const at = onFrame(footage, t)
  if (!passage || at <= passage.inMicros || at >= passage.outMicros) return [...passages]
  const first = { ...passage, outMicros: at, join: CUT, sound: { ...passage.sound, fadeOutMicros: 0 } }
  const second = goingOn(
    { ...passage, id: newId, inMicros: at, sound: { ...passage.sound, fadeInMicros: 0 } },
    passageLength(first),
  )
  if (keptStretches(first).length === 0 || keptStretches(second).length === 0) return [...passages]
  // Whoever comes later shows what the passage ends with.
  const later = [second, ...passages.slice(place + 1)].map((p) => ({
    ...p,
    feeds: p.feeds.map((f) =>
      f.plays.kind === 'passage' && f.plays.passageId === id ? { ...f, plays: { ...f.plays, passageId: newId } } : f,
    ),
  }))
  return [...passages.slice(0, place), first, ...later]
}

/** A passage that begins `late` (output time) into what it was: what runs on its own clock has come so far by then. */
function goingOn(passage: Passage, late: Micros): Passage {
  const on = <C extends { inMicros: Micros; speedPercent: number }>(clock: C): C => ({
    ...clock,
    inMicros: clock.inMicros + Math.round((late * clock.speedPercent) / 100),
  })
  const feeds = passage.feeds.map((f) =>
    f.plays.kind === 'recording' && f.plays.clock.kind === 'own'
      ? { ...f, plays: { ...f.plays, clock: on(f.plays.clock) } }
      : f,
  )
  return { ...passage, feeds, picture: passage.picture && on(passage.picture) }
}

/**
 * Strikes out a stretch of recording time; joins strikes it touches. Unchanged when nothing of the passage would be
 * left.
 */
export function strikeOut(passage: Passage, stretch: Strike): Passage {
  const strikes = mergeStrikes([...passage.strikes, stretch])
  return keptStretches({ ...passage, strikes }).length > 0 ? { ...passage, strikes } : passage
}

/** Takes back whatever is struck out between two recording times; a strike that reaches beyond is shortened. */
export function restore(passage: Passage, { fromMicros, toMicros }: Strike): Passage {
  const strikes = passage.strikes.flatMap((s) => [
    { fromMicros: s.fromMicros, toMicros: Math.min(s.toMicros, fromMicros) },
    { fromMicros: Math.max(s.fromMicros, toMicros), toMicros: s.toMicros },
  ])
  return { ...passage, strikes: mergeStrikes(strikes.filter((s) => s.toMicros > s.fromMicros)) }
}

/** In order, with those that touch or overlap made one. */
export function mergeStrikes(strikes: readonly Strike[]): Strike[] {
  const merged: Strike[] = []
  for (const s of [...strikes].sort((a, b) => a.fromMicros - b.fromMicros)) {
    const last = merged.at(-1)
    if (last && s.fromMicros <= last.toMicros) last.toMicros = Math.max(last.toMicros, s.toMicros)
    else merged.push({ ...s })
  }
  return merged
}

/**
 * Strikes out everything between two output times, in every passage it touches; a passage that would be left empty
 * goes, the last one stays.
 */
export function strikeOutput(
  map: TimeMap,
  fromMicros: Micros,
  toMicros: Micros,
  footageOf: (passage: Passage) => Footage,
): Passage[] {
  const struck = map.passages.flatMap((placed) => {
    const { passage, startMicros, endMicros } = placed
    const from = Math.max(fromMicros, startMicros)
    const to = Math.min(toMicros, endMicros)
    if (to <= from) return [passage]
    if (from === startMicros && to === endMicros) return []
    const footage = footageOf(passage)
    const at = (t: Micros) => onFrame(footage, recordingMicrosAt(placed, t))
    const stretch = {
      fromMicros: from === startMicros ? passage.inMicros : at(from),
      toMicros: to === endMicros ? passage.outMicros : at(to),
    }
    return [stretch.toMicros > stretch.fromMicros ? strikeOut(passage, stretch) : passage]
  })
  return struck.length > 0 ? struck : map.passages.map((p) => p.passage)
}

/** `passages` with the one at `from` taken out and put in so that it ends at index `to`. */
export function reorder<T>(passages: readonly T[], from: number, to: number): T[] {
  const rest = passages.filter((_, i) => i !== from)
  const moved = passages.slice(from, from + 1)
  return [...rest.slice(0, to), ...moved, ...rest.slice(to)]
}
