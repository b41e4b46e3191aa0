import type { Edit } from '../model/edit'
import type { Loudness } from '../sound/loudness'
import type { TimeMap } from '../time/timeMap'
import type { Finding } from './finding'

/** What feeds play things at, and the highest peak that survives their coding (EBU R 128 s2, AES TD1008). */
export const TARGET_LUFS = -14
export const MOST_PEAK_DB = -1

/** So far off nobody turns a knob; so far off everybody does. */
const OFF = 1.5
const FAR_OFF = 6
/** Changes of less are not worth a step of undo. */
const LEAST_GAIN_DB = 0.3

/** What is wrong with how loud a highlight is. Silence is nobody's mistake. */
export function soundFindings({ highlight }: Edit, map: TimeMap, { lufs, peakDb }: Loudness): Finding[] {
  if (lufs <= -70) return []
  const whole = { shapeId: null, passageId: null, panelId: null, rect: null, fromMicros: 0, toMicros: map.lengthMicros }
  const wanted = TARGET_LUFS - lufs
  // Louder only as far as the peaks allow.
  const gainDb = Math.min(wanted, MOST_PEAK_DB - peakDb)
  const gains = [...highlight.passages.filter((p) => !p.sound.muted).map((p) => p.sound.gainDb), ...highlight.beds.map((b) => b.gainDb)]
  const possible = Math.abs(gainDb) >= LEAST_GAIN_DB && gains.every((g) => g + gainDb <= 24 && g + gainDb >= -60)
  const remedy = possible ? ({ kind: 'gain', db: Math.round(gainDb * 10) / 10 } as const) : null
  const findings: Finding[] = []
  if (Math.abs(wanted) > OFF) findings.push({ ...whole, key: 'loudness', severity: Math.abs(wanted) > FAR_OFF ? 'warn' : 'note', fault: { kind: 'loudness', lufs, targetLufs: TARGET_LUFS }, remedy: wanted > 0 ? (gainDb > 0 ? remedy : null) : remedy })
  if (peakDb > MOST_PEAK_DB + 0.05) findings.push({ ...whole, key: 'peak', severity: peakDb > 0 ? 'warn' : 'note', fault: { kind: 'peak', peakDb, mostDb: MOST_PEAK_DB }, remedy: gainDb < 0 ? remedy : null })
  return findings
}
