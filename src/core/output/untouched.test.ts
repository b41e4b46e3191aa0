import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import { compose } from '../compose/compose'
import { edit as editSchema, type Edit } from '../model/edit'
import type { PanelId } from '../model/ids'
import { newPanel } from '../model/panel'
import { timeMapOf } from '../time/timeMap'
import { copiedRuns, untouchedFeed, untouchedStretches, type CodedFrame } from './untouched'

const WIDE = { id: 'wide', width: 1920, height: 1080 }

function wide(change: { panel?: object; region?: object; titles?: unknown[] } = {}): Edit {
  const { highlight, layouts, ...rest } = sampleEdit()
  return editSchema.parse({
    ...rest,
    highlight: {
      ...highlight,
      shapes: [WIDE],
      words: { ...highlight.words, ...(change.titles && { titles: change.titles }) },
    },
    setups: rest.setups.map((s) => ({
      ...s,
      regions: [{ id: 'g', role: 'game', name: 'Game', bounds: { x: 0, y: 0, width: 1, height: 1 }, ...change.region }],
    })),
    layouts: layouts.map((l) => ({
      ...l,
      perShape: { wide: { ...l.arrangement, tree: newPanel('one' as PanelId, 'game', change.panel) } },
    })),
  })
}

const shownBy = (edit: Edit, t: number) => {
  const composition = compose(edit, timeMapOf(edit.highlight), WIDE, t)
  return composition && untouchedFeed(composition)
}

describe('what is untouched', () => {
  it('is a whole frame in a shape of its size, and nothing less', () => {
    expect(shownBy(wide(), 1_000_000)).toMatchObject({ recordingId: 'r', micros: 13_000_000 })
    for (const panel of [
      { zoom: 1.1 },
      { flip: true },
      { turn: 2 },
      { opacity: 0.9 },
      { outline: { mask: { kind: 'ellipse' }, border: null, shadow: null } },
    ])
      expect(shownBy(wide({ panel }), 1_000_000), JSON.stringify(panel)).toBeNull()
    expect(shownBy(wide({ region: { bounds: { x: 0.01, y: 0, width: 0.99, height: 1 } } }), 1_000_000)).toBeNull()
    expect(shownBy(sampleEdit(), 1_000_000)).toBeNull()
  })

  it('ends where a recording is not wanted, and where another walk through it begins', () => {
    const edit = wide()
    const struck = {
      ...edit,
      highlight: {
        ...edit.highlight,
        passages: edit.highlight.passages.map((p) => ({
          ...p,
          strikes: [{ fromMicros: 15_000_000, toMicros: 16_000_000 }],
        })),
      },
    } as Edit
    const map = timeMapOf(struck.highlight)
    const at = (n: number) => {
      const composition = compose(struck, map, WIDE, Math.round((n * 1e6) / 60))
      if (!composition) throw new RangeError('outside')
      return composition
    }
    const stretches = untouchedStretches(540, at, () => true)
    expect(stretches.map((s) => [s.fromFrame, s.shown.length])).toEqual([
      [0, 180],
      [180, 360],
    ])
    expect(stretches[1]?.shown[0]).toBe(16_000_000)
    expect(untouchedStretches(540, at, () => false)).toEqual([])
  })
})

/**
 * Coded frames in the order of decoding: groups of `group` frames, each with up to three frames shown before the one
 * that is decoded ahead of them. `open`: those before a key frame may come after it.
 */
function codedFrames(count: number, group: number, between: number, open: boolean): CodedFrame[] {
  const order: { n: number; key: boolean }[] = []
  for (let start = 0; start < count; start += group) {
    const end = Math.min(count, start + group)
    const anchors = [start]
    for (let n = start + 1 + between; n < end; n += 1 + between) anchors.push(n)
    if (anchors.at(-1) !== end - 1) anchors.push(end - 1)
    anchors.forEach((n, i) => {
      order.push({ n, key: n === start })
      if (open && n === start && start > 0) order.push({ n: start - 0.5, key: false })
      for (let b = (anchors[i - 1] ?? n) + 1; b < n; b++) order.push({ n: b, key: false })
    })
  }
  return order.map(({ n, key }) => ({ micros: Math.round((n * 1e6) / 30), key }))
}

describe('what can be taken over', () => {
  it('is decodable by itself, shows each frame once, in its place, and begins with a key frame', () => {
    const random = seeded(SEED)
    for (let n = 0; n < 200; n++) {
      const coded = codedFrames(300, random.integer(10, 90), random.integer(0, 3), false)
      const [first, count] = [random.integer(0, 150), random.integer(30, 150)]
      const shown = Array.from(
        { length: count },
        (_, i) => Math.round(((first + i) * 1e6) / 30) + random.integer(-900, 900),
      )
      for (const run of copiedRuns(shown, 1000, coded, 1000)) {
        const part = coded.slice(run.first, run.first + run.frames.length)
        expect(part[0]?.key).toBe(true)
        expect([...run.frames].sort((a, b) => a - b)).toEqual(
          Array.from({ length: run.toFrame - run.fromFrame }, (_, i) => run.fromFrame + i),
        )
        part.forEach(({ micros }, i) =>
          expect(Math.abs(micros - (shown[(run.frames[i] ?? 0) - 1000] ?? NaN))).toBeLessThanOrEqual(900),
        )
        // Nothing that was decoded before the run is leant on: nothing in it is shown before its key frame.
        expect(Math.min(...part.map((c) => c.micros))).toBe(part[0]?.micros)
      }
    }
  })

  it('is all from the first key frame on where every frame is shown as it was recorded', () => {
    const coded = codedFrames(300, 60, 2, false)
    const shown = Array.from({ length: 200 }, (_, i) => Math.round(((20 + i) * 1e6) / 30))
    const [run, ...others] = copiedRuns(shown, 0, coded, 1000)
    expect(others).toEqual([])
    expect(run?.fromFrame).toBe(40)
    expect(run?.toFrame).toBeGreaterThan(200 - 4)
  })

  it('is nothing where frames are shown twice or left out, or too few, or where groups lean on those before', () => {
    const coded = codedFrames(300, 30, 2, false)
    const at = (factor: number, count: number) =>
      Array.from({ length: count }, (_, i) => Math.round((i * factor * 1e6) / 30))
    expect(copiedRuns(at(2, 100), 0, coded, 1000)).toEqual([])
    expect(copiedRuns(at(0.5, 200), 0, coded, 1000)).toEqual([])
    expect(copiedRuns(at(1, 20), 0, coded, 1000)).toEqual([])
    expect(copiedRuns(at(1, 100), 0, [], 1000)).toEqual([])
    const leaning = codedFrames(300, 30, 2, true)
    expect(
      copiedRuns(
        Array.from({ length: 100 }, (_, i) => Math.round(((45 + i) * 1e6) / 30)),
        0,
        leaning,
        1000,
      ),
    ).toEqual([])
  })
})
