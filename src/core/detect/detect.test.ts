import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { DEFAULT_WEIGHTS } from '../model/spotting'
import {
  coverage,
  LOUDNESS_STEP_MICROS,
  PART_MICROS,
  partCount,
  SPEECH_STEP_MICROS,
  stepsInPart,
  WAVE_STEP_MICROS,
  type Analysis,
  type SoundPart,
} from './analysis'
import {
  colourDistance,
  cutsAmong,
  type FrameSignature,
  isCut,
  mayFollowCut,
  motionBetween,
  SIGNATURE_HEIGHT,
  SIGNATURE_WIDTH,
  signatureOf,
} from './frameSignature'
import { LIVELINESS_STEP_MICROS, livelinessOf } from './liveliness'
import { momentAround, proposeMoments } from './moments'
import { slidingMedian } from './slidingMedian'
import { soundSteps } from './soundSteps'
import { speechOfAnalysis, speechStretches } from './speech'
import { Waveform } from './waveform'

const SECOND = 1_000_000

interface Planted {
  at: number
  seconds: number
  lufs: number
}

/** An analysis of made-up sound: quiet talk all along, with louder stretches at known times (seconds). */
function analysisWith(seconds: number, planted: readonly Planted[], seed: number): Analysis {
  const random = seeded(seed)
  const durationMicros = seconds * SECOND
  const sound = new Map<number, SoundPart>()
  for (let index = 0; index < partCount(durationMicros); index++) {
    const loudness = Float32Array.from({ length: stepsInPart(index, durationMicros, LOUDNESS_STEP_MICROS) }, (_, i) => {
      const t = (index * PART_MICROS + i * LOUDNESS_STEP_MICROS) / SECOND
      const loud = planted.find((p) => t >= p.at && t < p.at + p.seconds)
      return (loud?.lufs ?? -30) + random.between(-2, 2)
    })
    const speech = Uint8Array.from({ length: stepsInPart(index, durationMicros, SPEECH_STEP_MICROS) }, (_, i) => {
      const t = (index * PART_MICROS + i * SPEECH_STEP_MICROS) / SECOND
      // Sentences of four seconds, a second between them.
      return t % 5 < 4 ? 240 : 5
    })
    const wave = stepsInPart(index, durationMicros, WAVE_STEP_MICROS)
    sound.set(index, { peaks: new Uint8Array(wave).fill(60), rms: new Uint8Array(wave).fill(20), loudness, speech })
  }
  return { durationMicros, sound, pictures: new Map() }
}

const propose = (analysis: Analysis, count = 15, mostMicros = 60 * SECOND) =>
  proposeMoments(livelinessOf(analysis, DEFAULT_WEIGHTS), analysis.durationMicros, speechOfAnalysis(analysis), [], {
    count,
    mostMicros,
  })

describe('liveliness', () => {
  it(`finds what is louder than its own surroundings, also where all is loud (seed ${SEED})`, () => {
    const planted = [
      { at: 100, seconds: 3, lufs: -18 },
      { at: 400, seconds: 4, lufs: -16 },
      { at: 777, seconds: 2, lufs: -17 },
    ]
    const analysis = analysisWith(1000, planted, SEED)
    const found = propose(analysis)
    expect(
      found
        .slice(0, 3)
        .map((m) => Math.round(m.peakMicros / SECOND))
        .sort((a, b) => a - b),
    ).toEqual([expect.closeTo(101, -0.5), expect.closeTo(402, -0.5), expect.closeTo(778, -0.5)])
    const [best] = found
    expect(best?.reasons[0]).toMatchObject({ kind: 'loud' })
    // The same thirty minutes, all of it twelve dB louder: nothing changes.
    const louder: Analysis = {
      ...analysis,
      sound: new Map([...analysis.sound].map(([i, p]) => [i, { ...p, loudness: p.loudness.map((l) => l + 12) }])),
    }
    expect(
      propose(louder)
        .slice(0, 3)
        .map((m) => m.peakMicros)
        .sort(),
    ).toEqual(
      found
        .slice(0, 3)
        .map((m) => m.peakMicros)
        .sort(),
    )
  })

  it('begins before the rise and ends after the fall, in pauses of speech, within the length asked for, and never overlaps', () => {
    const analysis = analysisWith(
      600,
      [
        { at: 201.5, seconds: 5, lufs: -14 },
        { at: 230, seconds: 4, lufs: -15 },
      ],
      3,
    )
    const found = propose(analysis, 15, 20 * SECOND)
    const main = found.find((m) => m.inMicros < 203 * SECOND && m.outMicros > 203 * SECOND)
    if (!main) throw new Error('not found')
    expect(main.inMicros).toBeLessThan(201.5 * SECOND)
    expect(main.outMicros).toBeGreaterThan(206.5 * SECOND)
    const inPause = (t: number) => (t / SECOND) % 5 >= 3.7 || (t / SECOND) % 5 <= 0.05
    expect(inPause(main.inMicros), `in at ${main.inMicros}`).toBe(true)
    expect(inPause(main.outMicros), `out at ${main.outMicros}`).toBe(true)
    for (const m of found) expect(m.outMicros - m.inMicros).toBeLessThanOrEqual(20 * SECOND)
    const inOrder = [...found].sort((a, b) => a.inMicros - b.inMicros)
    inOrder.slice(1).forEach((m, i) => expect(m.inMicros).toBeGreaterThanOrEqual(inOrder[i]?.outMicros ?? 0))
  })

  it('weighs signs as it is told, and finds nothing where nothing is known', () => {
    const analysis = analysisWith(300, [{ at: 150, seconds: 3, lufs: -10 }], 5)
    const deaf = livelinessOf(analysis, { loudness: 0, motion: 1, speech: 0 })
    expect(Math.max(...deaf.score)).toBe(0)
    const nothing = livelinessOf(
      { durationMicros: 300 * SECOND, sound: new Map(), pictures: new Map() },
      DEFAULT_WEIGHTS,
    )
    expect(Math.max(...nothing.score)).toBe(0)
    expect(coverage(analysis)).toEqual({ sound: 1, pictures: 0 })
  })

  it('sees motion, spread over the time between the pictures looked at', () => {
    const motion = Array.from({ length: 300 }, (_, i) => ({
      micros: (i + 1) * 2 * SECOND,
      amount: i === 149 ? 0.2 : 0.02,
    }))
    const pictures = new Map(
      Array.from({ length: 10 }, (_, index) => [
        index,
        { pictures: [], cuts: [], motion: motion.filter((m) => Math.floor((m.micros - 1) / PART_MICROS) === index) },
      ]),
    )
    const { score } = livelinessOf({ durationMicros: 600 * SECOND, sound: new Map(), pictures }, DEFAULT_WEIGHTS)
    const best = score.indexOf(Math.max(...score))
    expect((best * LIVELINESS_STEP_MICROS) / SECOND).toBeGreaterThanOrEqual(298)
    expect((best * LIVELINESS_STEP_MICROS) / SECOND).toBeLessThanOrEqual(300)
  })

  it('snaps a mark’s surroundings to a shot’s cut where one is near', () => {
    const { inMicros, outMicros } = momentAround(
      100 * SECOND,
      200 * SECOND,
      [],
      [91 * SECOND, 104 * SECOND],
      60 * SECOND,
    )
    expect([inMicros, outMicros]).toEqual([91 * SECOND, 104 * SECOND])
    expect(momentAround(SECOND, 200 * SECOND, [], [], 60 * SECOND).inMicros).toBe(0)
  })
})

describe('a running median', () => {
  it(`agrees with sorting, to its step (seed ${SEED})`, () => {
    const random = seeded(SEED)
    const row = Float32Array.from({ length: 400 }, () => random.between(-50, 0))
    const fast = slidingMedian(row, 20, -50, 0)
    row.forEach((_, i) => {
      const near = [...row.subarray(Math.max(0, i - 20), i + 21)].sort((a, b) => a - b)
      const [low, high] = [near[Math.floor((near.length - 1) / 2)] ?? 0, near[Math.ceil((near.length - 1) / 2)] ?? 0]
      expect(fast[i]).toBeGreaterThanOrEqual(low - 0.4)
      expect(fast[i]).toBeLessThanOrEqual(high + 0.4)
    })
  })
})

describe('speech', () => {
  it('is stretches of high probability; short gaps lie inside, coughs are left out', () => {
    const row = (...parts: [number, number][]) => parts.flatMap(([steps, p]) => Array.from({ length: steps }, () => p))
    const found = speechStretches(row([10, 10], [50, 250], [5, 20], [50, 250], [40, 5], [2, 250], [40, 5]), SECOND)
    expect(found).toEqual([
      { fromMicros: SECOND + 10 * SPEECH_STEP_MICROS, toMicros: SECOND + 115 * SPEECH_STEP_MICROS - 64_000 },
    ])
  })

  it('goes on over the border of two parts', () => {
    const analysis = analysisWith(120, [], 1)
    for (const part of analysis.sound.values()) part.speech.fill(250)
    expect(speechOfAnalysis(analysis)).toHaveLength(1)
  })
})

describe('frame signatures', () => {
  const picture = (paint: (x: number, y: number) => [number, number, number]) =>
    Uint8ClampedArray.from(
      { length: SIGNATURE_WIDTH * SIGNATURE_HEIGHT * 4 },
      (_, i) => [...paint((i >> 2) % SIGNATURE_WIDTH, Math.floor((i >> 2) / SIGNATURE_WIDTH)), 255][i & 3] ?? 0,
    )
  const meadow = signatureOf(picture((x, y) => (y < 18 ? [120, 170, 230] : [60, 130 + (x % 8), 70])))
  const pannedMeadow = signatureOf(picture((x, y) => (y < 20 ? [120, 170, 230] : [60, 130 + ((x + 3) % 8), 70])))
  const hangar = signatureOf(picture((x) => (x < 30 ? [40, 40, 45] : [200, 190, 180])))

  it('tell another shot from a moving one and from a flash', () => {
    expect(isCut(meadow, hangar)).toBe(true)
    expect(isCut(meadow, pannedMeadow)).toBe(false)
    const flash = signatureOf(picture((x, y) => (y < 18 ? [124, 175, 238] : [62, 138 + (x % 8), 74])))
    expect(isCut(meadow, flash)).toBe(false)
    expect(motionBetween(meadow, meadow)).toBe(0)
    expect(colourDistance(meadow, hangar)).toBeCloseTo(1, 3)
    expect(() => signatureOf(new Uint8ClampedArray(12))).toThrow(RangeError)
  })
})

describe('cuts among frames', () => {
  /** A hall of chance blocks in a few greys, through which a camera pans by so many pixels a frame. */
  const shot = (seed: number, count: number, pan: number, light = 0) => {
    const random = seeded(seed)
    const levels = Array.from({ length: 4000 }, () => random.integer(0, 3) * 20 + 60)
    return Array.from({ length: count }, (_, n) =>
      signatureOf(
        Uint8ClampedArray.from({ length: SIGNATURE_WIDTH * SIGNATURE_HEIGHT * 4 }, (_, i) => {
          const [x, y] = [(i >> 2) % SIGNATURE_WIDTH, Math.floor((i >> 2) / SIGNATURE_WIDTH)]
          const level = levels[Math.floor((x + n * pan) / 6) + 60 * Math.floor(y / 6)] ?? 0
          return (i & 3) === 3 ? 255 : Math.min(255, level + light)
        }),
      ),
    )
  }

  it('are found in shots of the same colours, and not in a pan however quick', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const frames = [...shot(seed, 12, 0.2), ...shot(seed + 100, 9, 0), ...shot(seed + 200, 14, 0.3)]
      expect(cutsAmong(frames), `seed ${seed}`).toEqual([12, 21])
      expect(cutsAmong(shot(seed, 40, 9)), `pan, seed ${seed}`).toEqual([])
    }
  })

  it('are sought between moments that differ more than others do', () => {
    const everyFifth = (frames: FrameSignature[]) => frames.filter((_, i) => i % 5 === 0)
    const moments = everyFifth([...shot(1, 60, 0.2), ...shot(2, 60, 0.2)])
    expect(mayFollowCut(moments)).toEqual([12])
    expect(mayFollowCut(everyFifth(shot(3, 120, 0.4)))).toEqual([])
  })

  it('are none where a flash is over at once', () => {
    const frames = [...shot(1, 10, 0), ...shot(1, 4, 0, 120), ...shot(1, 12, 0)]
    expect(cutsAmong(frames)).toEqual([])
    expect(cutsAmong([...shot(1, 10, 0), ...shot(2, 12, 0, 120)])).toEqual([10])
  })
})

describe('sound steps', () => {
  it('measure a known tone: peak, level, loudness at its place', () => {
    const rate = 48_000
    const tone = Float32Array.from({ length: rate }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 997 * i) / rate))
    const row = new Float32Array(4 * rate)
    // A second before the part, then silence, tone, silence.
    row.set(tone, 2 * rate)
    const { peaks, rms, loudness } = soundSteps([row, row], row, rate, SECOND, 0, 3 * SECOND)
    expect(peaks[50]).toBe(0)
    expect(peaks[150]).toBeCloseTo(127, -0.5)
    expect(rms[150]).toBeCloseTo(255 * 0.5 * Math.SQRT1_2, -0.5)
    // BS.1770: 997 Hz at −6.02 dBFS in two channels reads −6.02 − 3.01 + 3.01 = −6.0 LUFS, give or take the filter.
    expect(loudness[15]).toBeCloseTo(-6.0, 0)
    expect(loudness[25]).toBe(-120)
    expect(peaks).toHaveLength(300)
  })
})

describe('waveform', () => {
  it(`shows at every scale the loudest peak that a plain search finds (seed ${SEED})`, () => {
    const random = seeded(SEED)
    const parts = [0, 1].map((index) => ({
      index,
      peaks: Uint8Array.from({ length: 6000 }, () => random.integer(0, 255)),
      rms: new Uint8Array(6000).fill(30),
    }))
    const waveform = new Waveform()
    for (const { index, ...part } of parts) waveform.add(index, part)
    const all = parts.flatMap((p) => [...p.peaks])
    for (const columnMicros of [10_000, 40_000, 160_000, 2_560_000]) {
      const peaks = new Uint8Array(40)
      const rms = new Uint8Array(40)
      waveform.columns(0, columnMicros, peaks, rms)
      const per = columnMicros / WAVE_STEP_MICROS
      // Coarse steps do not end exactly where parts and columns do: compare away from the border.
      for (let x = 0; x < 20 && (x + 1) * per < 5800; x++)
        expect(peaks[x], `column ${x} of ${columnMicros}`).toBe(Math.max(...all.slice(x * per, (x + 1) * per)))
      expect(rms[3]).toBe(30)
    }
  })
})
