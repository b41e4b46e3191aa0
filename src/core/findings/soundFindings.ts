import type { Edit } from '../model/edit'
import type { Outlet } from '../model/outlet'
import type { Loudness } from '../sound/loudness'
import type { TimeMap } from '../time/timeMap'
import type { FindingDraft, Remedy } from './finding'

/**
 * What feeds play things at, and the highest peak that survives their coding (EBU R 128 s2, AES TD1008); outlets may
 * say otherwise.
 */
export const TARGET_LUFS = -14
export const MAX_PEAK_DB = -1

/** So far off nobody turns a knob; so far off everybody does. */
const OFF = 1.5
const FAR_OFF = 6
/** Changes of less are not worth a step of undo. */
const MIN_GAIN_DB = 0.3
/** Held down by more than this, peaks are heard to be missing. */
const MAX_HELD_DB = 9

/** What is wrong with how loud a highlight is. Silence is nobody's mistake. */
export function soundFindings(
  { highlight }: Edit,
  map: TimeMap,
  { lufs, peakDb }: Loudness,
  outlet: Pick<Outlet, 'targetLufs' | 'mostPeakDb'> | null,
): FindingDraft[] {
  if (lufs <= -70) return []
  const targetLufs = outlet?.targetLufs ?? TARGET_LUFS
  const mostDb = outlet?.mostPeakDb ?? MAX_PEAK_DB
  const whole = { shapeId: null, passageId: null, panelId: null, rect: null, fromMicros: 0, toMicros: map.lengthMicros }
  const wanted = targetLufs - lufs
  const over = peakDb + wanted - mostDb
  const gains = [
    ...highlight.passages.filter((p) => !p.sound.muted).map((p) => p.sound.gainDb),
    ...highlight.beds.map((b) => b.gainDb),
  ]
  const gain = (db: number, limitDb: number | null): Remedy[] =>
    gains.every((g) => g + db <= 24 && g + db >= -60) && (Math.abs(db) >= MIN_GAIN_DB || limitDb !== null)
      ? [{ kind: 'gain', db: Math.round(db * 10) / 10, limitDb }]
      : []
  // Gain alone where peaks allow it; else what is over is held down, and where that would be too much, gain leads as
  // far as it may.
  const limited = highlight.limitDb !== null && highlight.limitDb <= mostDb
  const gainsToTarget = (): Remedy[] => {
    if (over <= 0 || limited) return gain(wanted, null)
    return over <= MAX_HELD_DB ? gain(wanted, mostDb) : gain(mostDb + MAX_HELD_DB - peakDb, mostDb)
  }
  const findings: FindingDraft[] = []
  const isOff = Math.abs(wanted) > OFF
  if (isOff)
    findings.push({
      ...whole,
      key: 'loudness',
      severity: Math.abs(wanted) > FAR_OFF ? 'warn' : 'note',
      fault: { kind: 'loudness', lufs, targetLufs },
      remedies: gainsToTarget(),
    })
  if (peakDb > mostDb + 0.05)
    findings.push({
      ...whole,
      key: 'peak',
      severity: peakDb > 0 ? 'warn' : 'note',
      fault: { kind: 'peak', peakDb, mostDb },
      remedies: isOff ? gainsToTarget() : gain(0, mostDb),
    })
  return findings
}
