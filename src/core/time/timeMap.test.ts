import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { RecordingId } from '../model/ids'
import { passage as passageSchema, type Passage } from '../model/passage'
import { outputLength, placePassages, toOutputMicros, toRecordingMicros } from './timeMap'

function passage(inMicros: number, outMicros: number, speedPercent = 100, recordingId = 'a'): Passage {
  return passageSchema.parse({ id: `${recordingId}${inMicros}`, recordingId, inMicros, outMicros, speedPercent, setupId: 's', layoutId: 'l' })
}

describe('time map', () => {
  it('lays passages end to end, each as long as its speed makes it', () => {
    const passages = [passage(0, 2_000_000), passage(5_000_000, 8_000_000, 150), passage(1_000_000, 2_000_000, 50)]
    expect(placePassages(passages).map((p) => [p.startMicros, p.endMicros])).toEqual([
      [0, 2_000_000],
      [2_000_000, 4_000_000],
      [4_000_000, 6_000_000],
    ])
    expect(outputLength(passages)).toBe(6_000_000)
  })

  it('knows where a moment appears: never, once, or more often', () => {
    const placed = placePassages([passage(0, 2_000_000), passage(1_000_000, 3_000_000, 200)])
    expect(toOutputMicros(placed, 'a' as RecordingId, 500_000)).toEqual([500_000])
    expect(toOutputMicros(placed, 'a' as RecordingId, 1_500_000)).toEqual([1_500_000, 2_250_000])
    expect(toOutputMicros(placed, 'a' as RecordingId, 3_000_000)).toEqual([])
    expect(toOutputMicros(placed, 'b' as RecordingId, 500_000)).toEqual([])
  })

  it(`maps every output time to a recording time and back within the rounding of one step (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 200; round++) {
      const passages = Array.from({ length: random.integer(1, 8) }, () => {
        const start = random.integer(0, 60_000_000)
        return passage(start, start + random.integer(20_000, 20_000_000), random.pick([25, 50, 80, 100, 150, 400]), random.pick(['a', 'b']))
      })
      const placed = placePassages(passages)
      for (let i = 0; i < 20; i++) {
        const t = random.integer(0, outputLength(passages) - 1)
        const at = toRecordingMicros(placed, t)
        if (!at) throw new Error(`nothing plays at ${t}`)
        expect(at.recordingMicros).toBeGreaterThanOrEqual(at.passage.inMicros)
        expect(at.recordingMicros).toBeLessThanOrEqual(at.passage.outMicros)
        const back = toOutputMicros(placed, at.passage.recordingId, Math.min(at.recordingMicros, at.passage.outMicros - 1))
        const nearest = Math.min(...back.map((b) => Math.abs(b - t)))
        expect(nearest).toBeLessThanOrEqual(Math.ceil(100 / at.passage.speedPercent) + 1)
      }
      expect(toRecordingMicros(placed, outputLength(passages))).toBeNull()
      expect(toRecordingMicros(placed, -1)).toBeNull()
    }
  })
})
