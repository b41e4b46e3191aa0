import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import { placePanels } from '../compose/placePanels'
import { contains, intersection } from '../geometry/rect'
import type { Edit } from '../model/edit'
import type { CueId, InsetId, OutletId, PanelId, RecordingId, TitleId } from '../model/ids'
import type { Layout } from '../model/layout'
import { startingOutlets } from '../model/outlet'
import { newPanel } from '../model/panel'
import type { Passage } from '../model/passage'
import { STANDARD_SHAPES } from '../model/shape'
import { PLAIN_TEXT } from '../model/textStyle'
import type { Setup } from '../model/setup'
import type { Measure } from '../words/setText'
import { clearOf } from './clearOf'
import { causeOf, worstFirst, type Finding } from './finding'
import { findingsOf } from './findings'

const outlet = startingOutlets('2026-11-25T10:00:00.000Z').find((o) => o.id === ('outlet-tall-feed' as OutletId)) ?? null
/** Letters half as wide as they are high. */
const measure: Measure = (text, { size }) => text.length * size * 0.5
const found = (edit: Edit, known: Partial<Parameters<typeof findingsOf>[1]> = {}) => findingsOf(edit, { outlet: null, measure: null, loudness: null, ...known })
const of = (findings: readonly Finding[], kind: Finding['fault']['kind']) => findings.filter((f) => f.fault.kind === kind)

/** The sample edit with nothing wrong: game and face apart, as large as recorded. */
function clean(): Edit {
  const edit = sampleEdit()
  const setup = edit.setups[0] as Setup
  setup.regions = setup.regions.map((r) => ({ ...r, bounds: r.role === 'face' ? { x: 0.6, y: 0, width: 0.4, height: 0.4 } : { x: 0, y: 0, width: 0.56, height: 1 } }))
  edit.highlight.shapes = [{ id: 'own', width: 540, height: 960 }]
  return edit
}

describe('a highlight with nothing wrong', () => {
  it('raises nothing', () => {
    expect(found(clean(), { measure })).toEqual([])
  })
})

describe('pictures', () => {
  it('blown up: the factor in the panel where it is, plain from 2.5 on', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) => (r.role === 'face' ? { ...r, bounds: { ...r.bounds, width: 180 / 1920, height: 101 / 1080 } } : r))
    expect(of(found(edit), 'blown-up')).toMatchObject([{ severity: 'warn', shapeId: 'own', panelId: 'top', fault: { role: 'face' } }])
    expect((of(found(edit), 'blown-up')[0]?.fault as { factor: number }).factor).toBeCloseTo(3, 0)
  })

  it('a face shown twice is found with its share; the remedy moves the crop no more than it must, and then it is gone', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    // The game's region is all of the frame: its crop reaches 0.2 of the way into the face's own.
    setup.regions = setup.regions.map((r) => (r.role === 'game' ? { ...r, bounds: { x: 0, y: 0, width: 1, height: 1 } } : { ...r, bounds: { x: 0.55, y: 0.6, width: 0.4, height: 0.4 } }))
    const [twice, ...others] = of(found(edit), 'shown-twice')
    expect(others).toEqual([])
    expect(twice).toMatchObject({ panelId: 'low', shapeId: 'own', fault: { role: 'face', within: 'game' } })
    const share = (twice?.fault as { share: number }).share
    const before = placed(edit, 'low')
    expect(share).toBeCloseTo(overlap(edit, before), 6)
    const remedy = twice?.remedy
    if (remedy?.kind !== 'move-crop') throw new Error('no remedy')
    const passage = edit.highlight.passages[0] as Passage
    passage.corrections = [remedy.correction]
    expect(of(found(edit), 'shown-twice')).toEqual([])
    expect(overlap(edit, placed(edit, 'low'))).toBe(0)
    expect(contains({ x: 0, y: 0, width: 1920, height: 1080 }, placed(edit, 'low'), 0.01)).toBe(true)
    expect(found(edit).filter((f) => f.severity !== 'note')).toEqual([])
  })

  it('a focus that is cut, and one that an inset covers', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) => (r.role === 'game' ? { ...r, focus: { x: 0.02, y: 0.2, width: 0.1, height: 0.4 } } : r))
    expect(of(found(edit), 'focus-cut')).toEqual([])
    const passage = edit.highlight.passages[0] as Passage
    passage.corrections = [{ panelId: 'low' as PanelId, dx: 0.4, dy: 0, zoom: 2, shapeId: null }]
    expect(of(found(edit), 'focus-cut')).toMatchObject([{ severity: 'warn', panelId: 'low', fault: { share: 1 } }])
    passage.corrections = []
    const layout = edit.layouts[0] as Layout
    layout.arrangement = { ...layout.arrangement, insets: [{ id: 'i' as InsetId, anchor: 'sw', dx: 0, dy: 0, width: 1, proportion: 0.6, panel: newPanel('over' as PanelId, 'hud') }] }
    const [hidden] = of(found(edit), 'hidden')
    expect(hidden).toMatchObject({ severity: 'warn', panelId: 'low', fault: { role: 'game' } })
  })

  function placed(edit: Edit, id: string) {
    const panel = placePanels(edit, edit.highlight.shapes[0] as never, edit.highlight.passages[0] as Passage).find((p) => p.panel.id === id)
    if (!panel?.picture) throw new Error('no picture')
    return panel.picture.crop
  }
  function overlap(edit: Edit, crop: { x: number; y: number; width: number; height: number }) {
    const face = (edit.setups[0] as Setup).regions.find((r) => r.role === 'face')?.bounds
    if (!face) throw new Error('no face')
    const own = { x: face.x * 1920, y: face.y * 1080, width: face.width * 1920, height: face.height * 1080 }
    const shared = intersection(own, crop)
    return shared ? (shared.width * shared.height) / (own.width * own.height) : 0
  }
})

describe('where it is headed', () => {
  const tall = STANDARD_SHAPES.filter((s) => s.id === 'tall')

  it('too long and too big are stops, with how much', () => {
    const edit = clean()
    edit.highlight.shapes = tall
    edit.highlight.passages = [{ ...(edit.highlight.passages[0] as Passage), inMicros: 0, outMicros: 60_000_000, speedPercent: 80 }]
    expect(of(found(edit, { outlet }), 'too-long')).toMatchObject([{ severity: 'stop', fault: { overMicros: 15_000_000 }, fromMicros: 60_000_000 }])
    const small = outlet && { ...outlet, largestBytes: 60_000_000 }
    const [tooBig] = of(found(edit, { outlet: small }), 'too-big')
    expect(tooBig).toMatchObject({ severity: 'stop', remedy: null })
    const fits = outlet && { ...outlet, largestBytes: 90_000_000 }
    expect(of(found(edit, { outlet: fits }), 'too-big')[0]?.remedy).toEqual({ kind: 'smaller-file' })
    edit.highlight.output = { ...edit.highlight.output, quality: 'small' }
    expect(of(found(edit, { outlet: fits }), 'too-big')).toEqual([])
    expect(of(found(edit), 'too-long')).toEqual([])
  })

  it('words under an outlet’s own things; a title in the free part raises nothing', () => {
    const edit = clean()
    edit.highlight.shapes = tall
    const title = { id: 't' as TitleId, text: 'Last gate', fromMicros: null, toMicros: null, style: PLAIN_TEXT }
    edit.highlight.words = { ...edit.highlight.words, titles: [title] }
    expect(of(found(edit, { outlet }), 'under-controls').filter((f) => (f.fault as { what: string }).what === 'title')).toEqual([])
    const layout = edit.layouts[0] as Layout
    layout.arrangement = { ...layout.arrangement, tree: { kind: 'stack', axis: 'column', gap: 0, children: [{ extent: { kind: 'weight', weight: 8 }, node: layout.arrangement.tree }, { extent: { kind: 'weight', weight: 2 }, node: { kind: 'titleArea' } }] } }
    const [under] = of(found(edit, { outlet }), 'under-controls')
    expect(under).toMatchObject({ severity: 'warn', fault: { what: 'title', zone: 'Name and text' } })
    expect((under?.fault as { share: number }).share).toBeGreaterThan(0.7)
  })

  it('a rate that the recording’s frames do not fall onto; the recording’s own is the remedy', () => {
    const edit = clean()
    edit.highlight.output = { ...edit.highlight.output, frameRate: { num: 25, den: 1 } }
    expect(of(found(edit), 'rate-mismatch')).toMatchObject([{ severity: 'note', fault: { recorded: { num: 60, den: 1 }, output: { num: 25, den: 1 } }, remedy: { kind: 'own-rate' } }])
    edit.highlight.output = { ...edit.highlight.output, frameRate: { num: 30, den: 1 } }
    expect(of(found(edit), 'rate-mismatch')).toEqual([])
  })
})

describe('sound', () => {
  const loud = (lufs: number, peakDb: number) => ({ lufs, peakDb, momentary: [] })
  const gain = (edit: Edit, lufs: number, peakDb: number) => found(edit, { loudness: loud(lufs, peakDb) })[0]?.remedy

  it('too quiet and too loud, with how much; gain leads to the target as far as peaks allow', () => {
    const edit = clean()
    expect(found(edit, { loudness: loud(-14.4, -2) })).toEqual([])
    expect(found(edit, { loudness: loud(-23, -12) })).toMatchObject([{ severity: 'warn', fault: { kind: 'loudness', lufs: -23 }, remedy: { kind: 'gain', db: 9 } }])
    expect(gain(edit, -23, -6)).toEqual({ kind: 'gain', db: 5 })
    expect(gain(edit, -23, -1)).toBeNull()
    expect(gain(edit, -9, -0.5)).toEqual({ kind: 'gain', db: -5 })
    edit.highlight.passages = edit.highlight.passages.map((p) => ({ ...p, sound: { ...p.sound, gainDb: 22 } }))
    expect(gain(edit, -23, -12)).toBeNull()
  })

  it('peaks that would be clipped, and silence, which is nobody’s mistake', () => {
    const edit = clean()
    expect(found(edit, { loudness: loud(-14, 0.6) })).toMatchObject([{ severity: 'warn', fault: { kind: 'peak', peakDb: 0.6 }, remedy: { kind: 'gain', db: -1.6 } }])
    expect(found(edit, { loudness: loud(-120, -120) })).toEqual([])
  })
})

describe('words', () => {
  const cue = (id: string, text: string, from: number, to: number) => ({ id: id as CueId, recordingId: 'r' as RecordingId, fromMicros: from * 1e6, toMicros: to * 1e6, text, words: [], speakerId: null })

  it('a line that is gone before it is read, with its speed; the remedy lets it stand as long as there is room', () => {
    const edit = clean()
    edit.highlight.words = { ...edit.highlight.words, cues: [cue('a', 'Three seconds up on the board, now!', 13, 14), cue('b', 'Clean turn.', 16, 17)] }
    const [hard, ...others] = of(found(edit), 'hard-to-read')
    expect(others).toEqual([])
    expect(hard).toMatchObject({ severity: 'warn', fault: { cueId: 'a', perSecond: 35 }, fromMicros: 1_000_000 })
    if (hard?.remedy?.kind !== 'lengthen-cue') throw new Error('no remedy')
    expect(hard.remedy.toMicros).toBeLessThanOrEqual(16_000_000)
    const { toMicros } = hard.remedy
    edit.highlight.words = { ...edit.highlight.words, cues: edit.highlight.words.cues.map((c) => (c.id === 'a' ? { ...c, toMicros } : c)) }
    expect(of(found(edit), 'hard-to-read')).toEqual([])
  })

  it('speed makes lines harder to read', () => {
    const edit = clean()
    edit.highlight.words = { ...edit.highlight.words, cues: [cue('a', 'Stay low, stay low now.', 13, 14.4)] }
    expect(of(found(edit), 'hard-to-read')).toEqual([])
    edit.highlight.passages = edit.highlight.passages.map((p) => ({ ...p, speedPercent: 150 }))
    expect(of(found(edit), 'hard-to-read')).toMatchObject([{ severity: 'warn' }])
  })

  it('a title that had to be set far smaller than asked for, in the shape where it was', () => {
    const edit = clean()
    const title = { id: 't' as TitleId, fromMicros: null, toMicros: null, style: { ...PLAIN_TEXT, size: 0.2, lines: 1 } }
    edit.highlight.words = { ...edit.highlight.words, titles: [{ ...title, text: 'Gate' }] }
    expect(of(found(edit, { measure }), 'does-not-fit')).toEqual([])
    edit.highlight.words = { ...edit.highlight.words, titles: [{ ...title, text: 'The last gate before the ridge, and no lift anywhere at all' }] }
    expect(of(found(edit, { measure }), 'does-not-fit')).toMatchObject([{ shapeId: 'own', fault: { what: 'title' } }])
  })
})

it('findings come worst first; a cause is another one when its number changes', () => {
  const make = (key: string, severity: Finding['severity'], factor: number): Finding => ({ key, severity, fault: { kind: 'blown-up', role: 'face', factor }, shapeId: null, passageId: null, panelId: null, fromMicros: 0, toMicros: 1, rect: null, remedy: null })
  expect(worstFirst([make('a', 'note', 1.6), make('b', 'stop', 9), make('c', 'warn', 3)]).map((f) => f.key)).toEqual(['b', 'c', 'a'])
  expect(causeOf(make('a', 'note', 1.601))).toBe(causeOf(make('a', 'note', 1.604)))
  expect(causeOf(make('a', 'note', 1.6))).not.toBe(causeOf(make('a', 'note', 2.4)))
})

it(`a crop that is cleared shows nothing of what is to go, stays inside and keeps its proportion (seed ${SEED})`, () => {
  const { next } = seeded(SEED)
  let cleared = 0
  for (let n = 0; n < 500; n++) {
    const bounds = { x: 100 * next(), y: 100 * next(), width: 400 + 1200 * next(), height: 300 + 700 * next() }
    const size = { width: bounds.width * (0.2 + 0.8 * next()), height: bounds.height * (0.2 + 0.8 * next()) }
    const crop = { ...size, x: bounds.x + (bounds.width - size.width) * next(), y: bounds.y + (bounds.height - size.height) * next() }
    const out = { x: bounds.x + bounds.width * next() * 0.8, y: bounds.y + bounds.height * next() * 0.8, width: bounds.width * 0.3 * next(), height: bounds.height * 0.3 * next() }
    const clear = clearOf(crop, bounds, out)
    if (!clear) continue
    cleared++
    const shared = intersection(clear, out)
    expect(shared ? shared.width * shared.height : 0).toBeLessThan(1e-6)
    expect(contains(bounds, clear, 1e-6)).toBe(true)
    expect(clear.width / clear.height).toBeCloseTo(crop.width / crop.height, 6)
    expect(clear.width).toBeGreaterThanOrEqual(0.4 * crop.width - 1e-9)
  }
  expect(cleared).toBeGreaterThan(350)
})
