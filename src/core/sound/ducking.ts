import type { RecordingId } from '../model/ids'
import type { Micros } from '../time/micros'
import type { TimeMap } from '../time/timeMap'
import { fromDecibels } from './levels'

/** A stretch in which somebody speaks; end-exclusive. */
export interface SpeechStretch {
  fromMicros: Micros
  toMicros: Micros
}

/** Where recordings hold speech, recording time, in order. A recording that has not been listened to is left out. */
export type SpeechOf = ReadonlyMap<RecordingId, readonly SpeechStretch[]>

/** A bed goes down before a word begins and comes back after the last one, slowly enough not to be noticed. */
const ATTACK_MICROS = 250_000
const RELEASE_MICROS = 700_000
/** Gaps shorter than this between words keep it down. */
const HOLD_MICROS = 500_000

/** Speech of a highlight on the output clock, merged and in order. Muted passages say nothing. */
export function speechInOutput(map: TimeMap, speechOf: SpeechOf): SpeechStretch[] {
  const all = map.passages.flatMap(({ passage, runs }) => {
    if (passage.sound.muted) return []
    const toOutput = (run: (typeof runs)[number], t: Micros) =>
      run.startMicros + Math.round(((t - run.inMicros) * 100) / passage.speedPercent)
    const spoken = speechOf.get(passage.recordingId) ?? []
    return runs.flatMap((run) =>
      spoken
        .filter((s) => s.toMicros > run.inMicros && s.fromMicros < run.outMicros)
        .map((s) => ({
          fromMicros: toOutput(run, Math.max(s.fromMicros, run.inMicros)),
          toMicros: toOutput(run, Math.min(s.toMicros, run.outMicros)),
        })),
    )
  })
  const merged: SpeechStretch[] = []
  for (const s of all.sort((a, b) => a.fromMicros - b.fromMicros)) {
    const last = merged.at(-1)
    if (last && s.fromMicros - last.toMicros <= HOLD_MICROS) last.toMicros = Math.max(last.toMicros, s.toMicros)
    else merged.push({ ...s })
  }
  return merged
}

/** Linear gain of a bed at output time `t`, lowered by `duckDb` under `speech` (from {@link speechInOutput}). */
export function duckGain(speech: readonly SpeechStretch[], duckDb: number, t: Micros): number {
  if (duckDb === 0) return 1
  let depth = 0
  for (const stretch of speech) {
    if (t < stretch.fromMicros - ATTACK_MICROS) break
    if (t > stretch.toMicros + RELEASE_MICROS) continue
    depth = Math.max(depth, shareAt(stretch, t))
  }
  return fromDecibels(-duckDb * depth)
}

/** How far a bed is down at `t` because of one stretch of speech, 0 to 1. */
function shareAt({ fromMicros, toMicros }: SpeechStretch, t: Micros): number {
  if (t < fromMicros) return (t - fromMicros + ATTACK_MICROS) / ATTACK_MICROS
  return t > toMicros ? 1 - (t - toMicros) / RELEASE_MICROS : 1
}
