import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { RecordingId } from '../model/ids'
import { chooseDrafts, type Candidate } from './chooseDrafts'
import { draftEdges } from './draftEdges'
import { sentencesOf } from './sentences'

const SECOND = 1_000_000
const micros = (seconds: number) => Math.round(seconds * SECOND)
const said = (from: number, to: number) => ({ fromMicros: micros(from), toMicros: micros(to) })
const seconds = ({ inMicros, outMicros }: { inMicros: number; outMicros: number }) => [
  inMicros / SECOND,
  outMicros / SECOND,
]

describe('where a draft begins and ends', () => {
  const around = (lively: [number, number], speech: ReturnType<typeof said>[], most = 60, peak = lively[0] + 0.5) =>
    draftEdges({
      lively: { inMicros: micros(lively[0]), outMicros: micros(lively[1]) },
      peakMicros: micros(peak),
      speech,
      durationMicros: 600 * SECOND,
      mostMicros: micros(most),
    })

  it('with what leads up to it and what is said about it, not with what was said long before', () => {
    const speech = [said(80, 88), said(100, 103), said(103.4, 107), said(109, 112), said(118, 125)]
    expect(seconds(around([106, 108], speech))).toEqual([99.85, 112.25])
  })

  it('with whole sentences where all of the talk would be too long', () => {
    const talk = Array.from({ length: 40 }, (_, n) => said(60 + 5 * n, 60 + 5 * n + 4))
    const [from, to] = seconds(around([131, 134], talk, 20)) as [number, number]
    expect(to - from).toBeLessThanOrEqual(20)
    expect(talk.map((s) => s.fromMicros / SECOND - 0.15)).toContain(from)
    expect(talk.map((s) => s.toMicros / SECOND + 0.25)).toContain(to)
    expect(from).toBeLessThan(131)
    expect(to).toBeGreaterThan(134)
  })

  it('with some quiet about what is very short', () => {
    const [from, to] = seconds(around([200, 201], [said(150, 160), said(240, 250)])) as [number, number]
    expect(to - from).toBeCloseTo(5, 3)
    expect(from).toBeLessThan(200)
    expect(to).toBeGreaterThan(201)
  })

  it('about the peak where one sentence is longer than there is room for', () => {
    expect(seconds(around([300, 310], [said(200, 400)], 30, 305))).toEqual([285, 315])
  })

  it(`never inside a sentence, never longer than allowed, always about the peak (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 500; round++) {
      const speech: ReturnType<typeof said>[] = []
      for (let t = random.between(0, 20); t < 560;) {
        const to = t + random.between(0.3, 9)
        speech.push(said(t, to))
        t = to + random.between(0.3, 14)
      }
      const from = random.between(20, 520)
      const lively: [number, number] = [from, from + random.between(0.5, 12)]
      const most = random.between(15, 60)
      const edges = around(lively, speech, most, random.between(lively[0], lively[1]))
      expect(edges.outMicros - edges.inMicros).toBeLessThanOrEqual(Math.round(most * SECOND))
      expect(edges.inMicros).toBeLessThanOrEqual(lively[1] * SECOND)
      expect(edges.outMicros).toBeGreaterThan(lively[0] * SECOND)
      const sentences = sentencesOf(speech)
      if (sentences.some((s) => s.toMicros - s.fromMicros > micros(most) - SECOND)) continue
      for (const t of [edges.inMicros, edges.outMicros])
        expect(sentences.filter((s) => t > s.fromMicros && t < s.toMicros)).toEqual([])
    }
  })
})

describe('which are made', () => {
  const candidate = (recording: string, from: number, to: number, score: number): Candidate => ({
    recordingId: recording as RecordingId,
    moment: {
      inMicros: from * SECOND,
      outMicros: to * SECOND,
      peakMicros: from * SECOND + 1,
      score,
      reasons: [],
    },
  })
  const all = [
    candidate('a', 10, 30, 0.5),
    candidate('a', 35, 50, 0.9),
    candidate('a', 100, 130, 0.3),
    candidate('b', 35, 50, 0.7),
  ]
  const names = (chosen: readonly Candidate[]) => chosen.map((c) => `${c.recordingId}${c.moment.inMicros / SECOND}`)

  it('the liveliest of all recordings, none beside another', () => {
    expect(names(chooseDrafts(all, [], { count: 10, mostMicros: 600 * SECOND }))).toEqual(['a35', 'b35', 'a100'])
    expect(names(chooseDrafts(all, [], { count: 2, mostMicros: 600 * SECOND }))).toEqual(['a35', 'b35'])
  })

  it('nothing that was cut before', () => {
    const taken = { recordingId: 'a' as RecordingId, inMicros: 30 * SECOND, outMicros: 60 * SECOND }
    expect(names(chooseDrafts(all, [taken], { count: 10, mostMicros: 600 * SECOND }))).toEqual(['b35', 'a10', 'a100'])
  })

  it('no more than so long in all', () => {
    expect(names(chooseDrafts(all, [], { count: 10, mostMicros: 40 * SECOND }))).toEqual(['a35', 'b35'])
    expect(names(chooseDrafts(all, [], { count: 10, mostMicros: 50 * SECOND }))).toEqual(['a35', 'b35'])
    expect(names(chooseDrafts(all, [], { count: 10, mostMicros: 60 * SECOND }))).toEqual(['a35', 'b35', 'a100'])
  })
})
