import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import { edit as editSchema, type Edit } from '../model/edit'
import { newRecord } from '../model/record'
import { timeMapOf } from '../time/timeMap'
import { concatenated } from './concatenated'
import { decimate } from './decimate'
import { duckGain, speechInOutput } from './ducking'
import { fadeGain, soundPlan } from './soundPlan'
import { TimeStretch } from './timeStretch'

const RATE = 48_000

function stretched(input: Float32Array, speed: number, block: number): Float32Array {
  const stretch = new TimeStretch(speed)
  const parts: Float32Array[] = []
  for (let at = 0; at < input.length; at += block * 2) parts.push(stretch.push(input.subarray(at, at + block * 2)))
  parts.push(stretch.end())
  return concatenated(parts)
}

/** Dominant frequency of the left channel between two times, by counting rising zero crossings. */
function pitch(samples: Float32Array, from: number, to: number): number {
  let rises = 0
  for (let i = Math.round(from * RATE); i < Math.round(to * RATE); i++)
    if ((samples[i * 2 - 2] ?? 0) < 0 && (samples[i * 2] ?? 0) >= 0) rises++
  return rises / (to - from)
}

describe('changing speed', () => {
  for (const speed of [0.25, 0.5, 0.8, 1.5, 2, 4])
    it(`at ${speed * 100} % keeps the pitch, gives the right length and does not drift`, () => {
      const seconds = 5
      const input = new Float32Array(seconds * RATE * 2)
      // A tone of 220 Hz, silent but for a burst of another every second.
      for (let i = 0; i < seconds * RATE; i++)
        input[i * 2] = input[i * 2 + 1] = 0.3 * Math.sin((2 * Math.PI * 220 * i) / RATE)
      const out = stretched(input, speed, 4800)
      expect(Math.abs(out.length / 2 / RATE - seconds / speed)).toBeLessThan(0.03)
      const length = seconds / speed
      expect(Math.abs(pitch(out, length * 0.25, length * 0.75) - 220)).toBeLessThan(4)
      // What sounds begins where it should, at the start as at the end.
      const beeps = new Float32Array(seconds * RATE * 2)
      for (const at of [1, 4])
        for (let i = 0; i < RATE / 5; i++)
          beeps[(at * RATE + i) * 2] = beeps[(at * RATE + i) * 2 + 1] = 0.5 * Math.sin((2 * Math.PI * 800 * i) / RATE)
      const moved = stretched(beeps, speed, 1024)
      for (const at of [1, 4]) {
        const expected = at / speed
        let onset = Math.round((expected - 0.15) * RATE)
        while (onset < moved.length / 2 && Math.abs(moved[onset * 2] ?? 0) < 0.1) onset++
        expect(Math.abs(onset / RATE - expected), `beep at ${at} s`).toBeLessThan(0.02)
      }
    })

  it('does not depend on how the input comes', () => {
    const random = seeded(SEED)
    const input = Float32Array.from({ length: 2 * RATE * 2 }, () => random.between(-0.5, 0.5))
    expect(stretched(input, 1.5, 333)).toEqual(stretched(input, 1.5, 20_000))
    expect(() => new TimeStretch(5)).toThrow(RangeError)
  })
})

/**
 * The sample edit as three passages: 10–12 s, then 30–33 s at 200 %, then 40–42 s with a stretch struck out; music
 * under all.
 */
function threePassages(): Edit {
  const edit = sampleEdit()
  const [first] = edit.highlight.passages
  if (!first) throw new Error('no passage')
  edit.highlight.passages = [
    { ...first, inMicros: 10_000_000, outMicros: 12_000_000 },
    {
      ...first,
      id: 'p2' as typeof first.id,
      inMicros: 30_000_000,
      outMicros: 33_000_000,
      speedPercent: 200,
      join: { kind: 'dissolve', lengthMicros: 400_000, easing: 'even' },
    },
    {
      ...first,
      id: 'p3' as typeof first.id,
      inMicros: 40_000_000,
      outMicros: 42_000_000,
      strikes: [{ fromMicros: 40_500_000, toMicros: 41_000_000 }],
      sound: { gainDb: -6, muted: false, fadeInMicros: 0, fadeOutMicros: 500_000 },
    },
  ]
  const music = {
    ...newRecord('2026-11-24T10:00:00.000Z'),
    id: 'm',
    name: 'Thermals',
    fileName: 'thermals.mp3',
    sizeBytes: 9,
    durationMicros: 60_000_000,
    originMicros: 0,
    sound: { codec: 'MP3', sampleRate: 44100, channels: 2, startMicros: 0 },
  }
  const bed = {
    id: 'b',
    soundFileId: 'm',
    startMicros: 1_000_000,
    inMicros: 5_000_000,
    gainDb: -12,
    fadeInMicros: 0,
    fadeOutMicros: 0,
    duckDb: 10,
  }
  return editSchema.parse({ ...edit, highlight: { ...edit.highlight, beds: [bed] }, soundFiles: [music] })
}

describe('sound plan', () => {
  it('plays every run at its place, with a few ms over each cut and all of a join', () => {
    const edit = threePassages()
    const map = timeMapOf(edit.highlight)
    expect(map.lengthMicros).toBe(5_000_000)
    const plan = soundPlan(edit, map)
    expect(plan.map((s) => [s.startMicros, s.endMicros, s.fromMicros])).toEqual([
      [0, 2_003_000, 10_000_000],
      [1_997_000, 3_700_000, 29_994_000],
      [3_300_000, 4_003_000, 39_800_000],
      [3_997_000, 5_000_000, 40_997_000],
      [1_000_000, 5_000_000, 5_000_000],
    ])
    expect(plan[3]?.gain).toBeCloseTo(0.501, 3)
  })

  it(`over a cut both sides together are as loud as either; over a dissolve as strong (seed ${SEED})`, () => {
    const edit = threePassages()
    const plan = soundPlan(edit, timeMapOf(edit.highlight))
    const level = (i: number, t: number) =>
      (plan[i]?.fades ?? []).filter((f) => f.toMicros < 4_400_000).reduce((g, f) => g * fadeGain(f, t), 1)
    for (let t = 1_997_000; t <= 2_003_000; t += 500) expect(level(0, t) + level(1, t)).toBeCloseTo(1, 6)
    for (let t = 3_300_000; t <= 3_700_000; t += 20_000) expect(level(1, t) ** 2 + level(2, t) ** 2).toBeCloseTo(1, 6)
  })

  it('opens softly and leaves muted passages out', () => {
    const edit = threePassages()
    const plan = soundPlan(edit, timeMapOf(edit.highlight))
    expect(plan[0]?.fades.map((f) => fadeGain(f, 0))).toContain(0)
    for (const p of edit.highlight.passages) p.sound.muted = true
    expect(soundPlan(edit, timeMapOf(edit.highlight))).toHaveLength(1)
  })
})

describe('lowering under speech', () => {
  it('goes down before a word, stays down over short gaps, comes back after', () => {
    const edit = threePassages()
    const map = timeMapOf(edit.highlight)
    const speech = speechInOutput(
      map,
      new Map([
        [
          'r' as Edit['recordings'][number]['id'],
          [
            { fromMicros: 11_000_000, toMicros: 11_400_000 },
            { fromMicros: 30_000_000, toMicros: 31_000_000 },
            { fromMicros: 40_500_000, toMicros: 40_900_000 },
          ],
        ],
      ]),
    )
    expect(speech).toEqual([
      { fromMicros: 1_000_000, toMicros: 1_400_000 },
      { fromMicros: 2_000_000, toMicros: 2_500_000 },
    ])
    expect(duckGain(speech, 10, 1_200_000)).toBeCloseTo(10 ** -0.5, 6)
    expect(duckGain(speech, 10, 700_000)).toBe(1)
    expect(duckGain(speech, 10, 3_300_000)).toBe(1)
    expect(duckGain(speech, 10, 1_750_000)).toBeGreaterThan(10 ** -0.5)
    expect(duckGain(speech, 0, 1_200_000)).toBe(1)
    let last = 1
    for (let t = 0; t < 5_000_000; t += 5_000) {
      const now = duckGain(speech, 10, t)
      expect(Math.abs(now - last), 'no jump').toBeLessThan(0.06)
      last = now
    }
  })
})

describe('bringing down the sample rate', () => {
  for (const from of [48_000, 44_100, 96_000])
    it(`from ${from} passes what a voice is made of, in place, and stops what would fold down`, () => {
      const tone = (hz: number) =>
        Float32Array.from({ length: from }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / from))
      const level = (row: Float32Array) => Math.sqrt(row.subarray(2000, 14_000).reduce((s, v) => s + v * v, 0) / 12_000)
      for (const hz of [100, 1000, 4000]) {
        const low = decimate(tone(hz), from, 16_000)
        expect(low).toHaveLength(16_000)
        expect(level(low)).toBeCloseTo(0.5 * Math.SQRT1_2, 2)
        for (let n = 5000; n < 5040; n++) expect(low[n]).toBeCloseTo(0.5 * Math.sin((2 * Math.PI * hz * n) / 16_000), 1)
      }
      expect(level(decimate(tone(11_000), from, 16_000))).toBeLessThan(0.01)
    })

  it('refuses to go up', () => {
    expect(() => decimate(new Float32Array(10), 8000, 16_000)).toThrow(RangeError)
  })
})
