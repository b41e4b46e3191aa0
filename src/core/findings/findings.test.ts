import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import { placePanels } from '../compose/placePanels'
import { contains, intersection, type Rect } from '../geometry/rect'
import { replacePanels } from '../layout/tree'
import type { Edit } from '../model/edit'
import type { CueId, InsetId, OutletId, PanelId, PassageId, RecordingId, TitleId } from '../model/ids'
import type { Layout } from '../model/layout'
import { startingOutlets } from '../model/outlet'
import { newPanel } from '../model/panel'
import type { Passage } from '../model/passage'
import { STANDARD_SHAPES } from '../model/shape'
import { PLAIN_TEXT } from '../model/textStyle'
import type { Setup } from '../model/setup'
import type { Measure } from '../words/setText'
import { clearOf } from './clearOf'
import { causeOf, isSafe, worstFirst, type Finding } from './finding'
import { applyRemedy, tryRemedy } from '@/edit/remedies'
import { findingsOf, NOTHING_MEASURED, type Measurements } from './findings'
import { partly } from './partly'

const outlet =
  startingOutlets('2026-11-25T10:00:00.000Z').find((o) => o.id === ('outlet-tall-feed' as OutletId)) ?? null
/** Letters half as wide as they are high. */
const measure: Measure = (text, { size }) => text.length * size * 0.5
const found = (edit: Edit, known: Partial<Measurements> = {}) =>
  findingsOf(structuredClone(edit), { ...NOTHING_MEASURED, ...known }, tryRemedy)

/** Does what a finding's remedy says; throws when it has none. */
function cure(edit: Edit, finding: Finding | undefined): void {
  if (!finding?.remedy) throw new Error('no remedy')
  applyRemedy(edit, finding.remedy)
}
const of = (findings: readonly Finding[], kind: Finding['fault']['kind']) =>
  findings.filter((f) => f.fault.kind === kind)

/** The sample edit with nothing wrong: game and face apart, as large as recorded. */
function clean(): Edit {
  const edit = sampleEdit()
  const setup = edit.setups[0] as Setup
  setup.regions = setup.regions.map((r) => ({
    ...r,
    bounds: r.role === 'face' ? { x: 0.6, y: 0, width: 0.4, height: 0.4 } : { x: 0, y: 0, width: 0.56, height: 1 },
  }))
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
    setup.regions = setup.regions.map((r) =>
      r.role === 'face' ? { ...r, bounds: { ...r.bounds, width: 180 / 1920, height: 101 / 1080 } } : r,
    )
    expect(of(found(edit), 'blown-up')).toMatchObject([
      { severity: 'warn', shapeId: 'own', panelId: 'top', fault: { role: 'face' } },
    ])
    expect((of(found(edit), 'blown-up')[0]?.fault as { factor: number }).factor).toBeCloseTo(3, 0)
  })

  it('a face shown twice is found with its share; the remedy moves the crop no more than it must, and then it is gone', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    // The game's region is all of the frame: its crop reaches 0.2 of the way into the face's own.
    setup.regions = setup.regions.map((r) =>
      r.role === 'game'
        ? { ...r, bounds: { x: 0, y: 0, width: 1, height: 1 } }
        : { ...r, bounds: { x: 0.55, y: 0.6, width: 0.4, height: 0.4 } },
    )
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
    setup.regions = setup.regions.map((r) =>
      r.role === 'game' ? { ...r, focus: { x: 0.02, y: 0.2, width: 0.1, height: 0.4 } } : r,
    )
    setup.regions.push({ ...(setup.regions[0] as Setup['regions'][number]), id: 'hud' as never, role: 'hud' })
    expect(of(found(edit), 'focus-cut')).toEqual([])
    const passage = edit.highlight.passages[0] as Passage
    passage.corrections = [{ panelId: 'low' as PanelId, dx: 0.4, dy: 0, zoom: 2, shapeId: null }]
    expect(of(found(edit), 'focus-cut')).toMatchObject([{ severity: 'warn', panelId: 'low', fault: { share: 1 } }])
    passage.corrections = []
    const layout = edit.layouts[0] as Layout
    layout.arrangement = {
      ...layout.arrangement,
      insets: [
        {
          id: 'i' as InsetId,
          anchor: 'sw',
          dx: 0,
          dy: 0,
          width: 1,
          proportion: 0.6,
          panel: newPanel('over' as PanelId, 'hud'),
        },
      ],
    }
    const [hidden] = of(found(edit), 'hidden')
    expect(hidden).toMatchObject({ severity: 'warn', panelId: 'low', fault: { role: 'game' } })
  })

  it('a head that was seen is not to be cut; one that nobody has seen raises nothing', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    const passage = edit.highlight.passages[0] as Passage
    passage.corrections = [{ panelId: 'top' as PanelId, dx: 0.1, dy: 0, zoom: 2, shapeId: null }]
    expect(of(found(edit), 'head-cut')).toEqual([])
    const head = { x: 0.7, y: 0.1, width: 0.1, height: 0.2 }
    setup.regions = setup.regions.map((r) => (r.role === 'face' ? { ...r, head } : r))
    const inFrame = inPixels(head)
    const left = shareIn(placed(edit, 'top'), inFrame)
    const [cut] = of(found(edit), 'head-cut')
    expect(left).toBeLessThan(0.9)
    expect((cut?.fault as { share: number }).share).toBeCloseTo(1 - left, 6)
    cure(edit, cut)
    expect(of(found(edit), 'head-cut')).toEqual([])
    expect(contains(placed(edit, 'top'), inFrame, 0.5)).toBe(true)
  })

  it('a list that its band cuts is told of by how much, and one too small to read by its size', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) =>
      r.role === 'game' ? { ...r, role: 'chat', bounds: { x: 0, y: 0, width: 0.56, height: 0.1 } } : r,
    )
    const layout = edit.layouts[0] as Layout
    layout.arrangement = replacePanels(layout.arrangement, (p) => (p.id === 'low' ? { ...p, role: 'chat' } : p))
    const [cut] = of(found(edit), 'read-cut')
    const crop = placed(edit, 'low')
    expect((cut?.fault as { share: number }).share).toBeCloseTo(1 - crop.width / (0.56 * 1920), 2)
    layout.arrangement = {
      ...layout.arrangement,
      insets: [
        {
          id: 'i' as InsetId,
          anchor: 'sw',
          dx: 0,
          dy: 0,
          width: 0.4,
          proportion: (0.56 * 1920) / (0.1 * 1080),
          panel: newPanel('list' as PanelId, 'chat'),
        },
      ],
    }
    const [small] = of(found(edit), 'too-small')
    expect(small?.panelId).toBe('list')
    // Of 1080 lines on a canvas 540 px wide: 0.4 of its width for 0.56 of 1920 px.
    expect((small?.fault as { share: number }).share).toBeCloseTo(((0.4 * 540) / (0.56 * 1920)) * (1080 / 540), 1)
  })

  it('a focus that is cut off is held by the least move of the crop, zoomed out where it must be', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) =>
      r.role === 'game' ? { ...r, focus: { x: 0.05, y: 0.3, width: 0.2, height: 0.4 } } : r,
    )
    const passage = edit.highlight.passages[0] as Passage
    passage.corrections = [{ panelId: 'low' as PanelId, dx: 0.3, dy: 0, zoom: 1.5, shapeId: null }]
    const [cut] = of(found(edit), 'focus-cut')
    expect(cut?.fault).toMatchObject({ kind: 'focus-cut', role: 'game' })
    const focus = inPixels({ x: 0.05, y: 0.3, width: 0.2, height: 0.4 })
    expect((cut?.fault as { share: number }).share).toBeCloseTo(1 - shareIn(placed(edit, 'low'), focus), 6)
    cure(edit, cut)
    expect(of(found(edit), 'focus-cut')).toEqual([])
    expect(contains(placed(edit, 'low'), focus, 0.5)).toBe(true)
  })

  it('an inset over what matters is hung elsewhere', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = [
      ...setup.regions.map((r) =>
        r.role === 'game' ? { ...r, focus: { x: 0.02, y: 0.75, width: 0.2, height: 0.2 } } : r,
      ),
      { ...(setup.regions[0] as Setup['regions'][number]), id: 'hud' as never, role: 'hud' },
    ]
    const layout = edit.layouts[0] as Layout
    layout.arrangement = {
      ...layout.arrangement,
      insets: [
        {
          id: 'i' as InsetId,
          anchor: 'sw',
          dx: 0.02,
          dy: -0.02,
          width: 0.4,
          proportion: 1.5,
          panel: newPanel('over' as PanelId, 'hud'),
        },
      ],
    }
    const [hidden] = of(found(edit), 'hidden')
    expect(hidden?.remedy).toMatchObject({ kind: 'move-inset', insetId: 'i' })
    cure(edit, hidden)
    expect(of(found(edit), 'hidden')).toEqual([])
  })

  it('a band that asks too much of its pixels becomes lower; nothing worse comes of it', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) =>
      r.role === 'face' ? { ...r, bounds: { x: 0.6, y: 0, width: 300 / 1920, height: 140 / 1080 } } : r,
    )
    const layout = edit.layouts[0] as Layout
    layout.arrangement = {
      ...layout.arrangement,
      tree: {
        kind: 'stack',
        axis: 'column',
        gap: 0,
        children: [
          { extent: { kind: 'weight', weight: 40 }, node: newPanel('top' as PanelId, 'face') },
          { extent: { kind: 'weight', weight: 56 }, node: newPanel('low' as PanelId, 'game') },
        ],
      },
    }
    const before = found(edit)
    const [soft] = of(before, 'blown-up')
    expect(soft).toMatchObject({ severity: 'warn', panelId: 'top', remedy: { kind: 'lower-band' } })
    cure(edit, soft)
    expect(of(found(edit), 'blown-up').filter((f) => f.severity === 'warn')).toEqual([])
    const [lowered] = [layout.arrangement, ...Object.values(layout.perShape)]
      .flatMap(({ tree }) =>
        tree.kind === 'stack'
          ? [tree.children.map(({ extent }) => (extent.kind === 'weight' ? extent.weight : NaN))]
          : [],
      )
      .filter(([w]) => w !== 40)
    expect(
      lowered?.reduce((sum, w) => sum + w, 0),
      'in hundredths of the stack, not in pixels',
    ).toBeCloseTo(100, 3)
  })

  it('crops that move are looked at along their way: the moment when it is worst', () => {
    const edit = clean()
    const setup = edit.setups[0] as Setup
    setup.regions = setup.regions.map((r) =>
      r.role === 'game'
        ? { ...r, bounds: { x: 0, y: 0, width: 1, height: 1 } }
        : { ...r, bounds: { x: 0.7, y: 0.5, width: 0.3, height: 0.5 } },
    )
    const passage = edit.highlight.passages[0] as Passage
    passage.cropPaths = [
      {
        regionId: setup.regions.find((r) => r.role === 'game')?.id as never,
        keys: [
          { micros: 12_000_000, x: 0.2, y: 0.5, jump: false },
          { micros: 16_000_000, x: 0.85, y: 0.5, jump: false },
          { micros: 20_000_000, x: 0.2, y: 0.5, jump: false },
        ],
      },
    ]
    expect(of(found(edit), 'shown-twice')).toMatchObject([{ panelId: 'low', fromMicros: 4_000_000 }])
    passage.cropPaths = [
      {
        regionId: setup.regions.find((r) => r.role === 'game')?.id as never,
        keys: [{ micros: 12_000_000, x: 0.2, y: 0.5, jump: false }],
      },
    ]
    expect(of(found(edit), 'shown-twice')).toEqual([])
  })

  it('border along a crop’s edge, in recorded pixels; tightened, it is gone', () => {
    const edit = clean()
    const face = (edit.setups[0] as Setup).regions.find((r) => r.role === 'face') as Setup['regions'][number]
    face.bounds = { x: 1152 / 1920, y: 0, width: 540 / 1920, height: 304 / 1080 }
    const edges = new Map([[face.id as string, { x: 1158 / 1920, y: 6 / 1080, width: 528 / 1920, height: 292 / 1080 }]])
    const [sliver, ...others] = of(found(edit, { edges }), 'sliver')
    expect(others).toEqual([])
    expect(sliver).toMatchObject({
      severity: 'warn',
      panelId: 'top',
      fault: { px: 6 },
      remedy: { kind: 'tighten-region' },
    })
    cure(edit, sliver)
    expect(of(found(edit, { edges }), 'sliver')).toEqual([])
    expect(contains({ x: 1158, y: 6, width: 528, height: 292 }, placed(edit, 'top'), 0.5)).toBe(true)
  })

  it('somebody who leaves a region: the share of the time, when, and bounds that hold them', () => {
    const edit = clean()
    const face = (edit.setups[0] as Setup).regions.find((r) => r.role === 'face') as Setup['regions'][number]
    const outside = [
      { fromMicros: 3_000_000, toMicros: 4_500_000 },
      { fromMicros: 8_000_000, toMicros: 9_500_000 },
    ]
    const presence = new Map([[face.id as string, { outside, holding: { x: 0.58, y: 0, width: 0.42, height: 0.45 } }]])
    const [leaves, ...others] = of(found(edit, { presence }), 'leaves-region')
    expect(others).toEqual([])
    expect(leaves).toMatchObject({
      severity: 'warn',
      shapeId: null,
      fault: { role: 'face', share: 0.3 },
      fromMicros: 3_000_000,
      toMicros: 9_500_000,
      times: outside,
    })
    expect(
      of(found(edit, { presence: new Map([[face.id as string, { outside: [], holding: null }]]) }), 'leaves-region'),
    ).toEqual([])
  })

  it('canvas that nothing covers, in pixels; a backdrop covers it', () => {
    const edit = clean()
    const layout = edit.layouts[0] as Layout
    const { tree } = layout.arrangement
    layout.arrangement = {
      ...layout.arrangement,
      tree: {
        kind: 'stack',
        axis: 'column',
        gap: 0,
        children: [
          { extent: { kind: 'fixed', fraction: 0.75 }, node: tree },
          { extent: { kind: 'weight', weight: 1 }, node: { kind: 'space' } },
        ],
      },
    }
    const [bare] = of(found(edit), 'uncovered')
    expect(bare).toMatchObject({
      severity: 'warn',
      fault: { px: 540 * 240, share: 0.25 },
      remedy: { kind: 'backdrop' },
    })
    cure(edit, bare)
    expect(of(found(edit), 'uncovered')).toEqual([])
  })

  it('a join whose recording ends too soon, with the frames that are missing; slipping gives them', () => {
    const edit = clean()
    const [first] = edit.highlight.passages as [Passage]
    edit.highlight.passages = [
      {
        ...first,
        inMicros: 50_000_000,
        outMicros: 59_900_000,
        join: { kind: 'dissolve', lengthMicros: 1_000_000, easing: 'even' },
      },
      { ...first, id: 'q' as PassageId },
    ]
    const [short] = of(found(edit), 'handles-short')
    expect(short).toMatchObject({
      severity: 'warn',
      passageId: first.id,
      fault: { side: 'after', frames: 24 },
      remedy: { kind: 'slip', byMicros: -400_000 },
    })
    cure(edit, short)
    expect(of(found(edit), 'handles-short')).toEqual([])
  })

  it('a file that is not there is a stop, by its name and where it is used', () => {
    const edit = clean()
    expect(of(found(edit, { missing: new Set(['r']) }), 'source-missing')).toMatchObject([
      { severity: 'stop', fault: { fileName: 'ridge.mp4' }, fromMicros: 0, toMicros: 10_000_000 },
    ])
  })

  function placed(edit: Edit, id: string) {
    const panel = placePanels(edit, edit.highlight.shapes[0] as never, edit.highlight.passages[0] as Passage).find(
      (p) => p.panel.id === id,
    )
    if (!panel?.picture) throw new Error('no picture')
    return panel.picture.crop
  }
  function overlap(edit: Edit, crop: Rect) {
    const face = (edit.setups[0] as Setup).regions.find((r) => r.role === 'face')?.bounds
    if (!face) throw new Error('no face')
    return shareIn(crop, inPixels(face))
  }
  const inPixels = ({ x, y, width, height }: Rect): Rect => ({
    x: x * 1920,
    y: y * 1080,
    width: width * 1920,
    height: height * 1080,
  })
  /** How much of `part` a crop holds. */
  function shareIn(crop: Rect, part: Rect): number {
    const shared = intersection(crop, part)
    return shared ? (shared.width * shared.height) / (part.width * part.height) : 0
  }
})

describe('where it is headed', () => {
  const tall = STANDARD_SHAPES.filter((s) => s.id === 'tall')

  it('too long and too big are stops, with how much', () => {
    const edit = clean()
    edit.highlight.shapes = tall
    edit.highlight.passages = [
      { ...(edit.highlight.passages[0] as Passage), inMicros: 0, outMicros: 60_000_000, speedPercent: 80 },
    ]
    expect(of(found(edit, { outlet }), 'too-long')).toMatchObject([
      { severity: 'stop', fault: { overMicros: 15_000_000 }, fromMicros: 60_000_000 },
    ])
    const small = outlet && { ...outlet, largestBytes: 60_000_000 }
    const [tooBig] = of(found(edit, { outlet: small }), 'too-big')
    expect(tooBig).toMatchObject({ severity: 'stop', remedy: { kind: 'limit-size', mostBytes: 60_000_000 } })
    cure(edit, tooBig)
    expect(of(found(edit, { outlet: small }), 'too-big')).toEqual([])
    edit.highlight.output = { ...edit.highlight.output, mostBytes: null }
    const tiny = outlet && { ...outlet, largestBytes: 1_000_000 }
    expect(of(found(edit, { outlet: tiny }), 'too-big')[0]?.remedy).toBeNull()
    const fits = outlet && { ...outlet, largestBytes: 90_000_000 }
    expect(of(found(edit, { outlet: fits }), 'too-big')[0]?.remedy).toEqual({ kind: 'smaller-file' })
    edit.highlight.output = { ...edit.highlight.output, quality: 'small' }
    expect(of(found(edit, { outlet: fits }), 'too-big')).toEqual([])
    expect(of(found(edit), 'too-long')).toEqual([])
  })

  it('what is too long is to end at the last pause before the limit', () => {
    const edit = clean()
    edit.highlight.shapes = tall
    edit.highlight.passages = [
      { ...(edit.highlight.passages[0] as Passage), inMicros: 0, outMicros: 60_000_000 },
      { ...(edit.highlight.passages[0] as Passage), id: 'q' as PassageId, inMicros: 0, outMicros: 5_000_000 },
    ]
    const speech = new Map([
      [
        'r' as RecordingId,
        [
          { fromMicros: 40_000_000, toMicros: 52_000_000 },
          { fromMicros: 57_000_000, toMicros: 60_000_000 },
        ],
      ],
    ])
    const short = outlet && { ...outlet, longestMicros: 58_000_000 }
    const [long] = of(found(edit, { outlet: short, speech }), 'too-long')
    expect(long).toMatchObject({ fault: { overMicros: 7_000_000 }, remedy: { kind: 'end-at', atMicros: 56_940_000 } })
    expect(long?.remedy && isSafe(long.remedy), 'what leaves something out is asked for').toBe(false)
    cure(edit, long)
    expect(edit.highlight.passages.map((p) => p.outMicros)).toEqual([56_940_000])
    expect(of(found(edit, { outlet: short, speech }), 'too-long')).toEqual([])
  })

  it('words under an outlet’s own things; a title in the free part raises nothing', () => {
    const edit = clean()
    edit.highlight.shapes = tall
    const title = { id: 't' as TitleId, text: 'Last gate', fromMicros: null, toMicros: null, style: PLAIN_TEXT }
    edit.highlight.words = { ...edit.highlight.words, titles: [title] }
    expect(
      of(found(edit, { outlet }), 'under-controls').filter((f) => (f.fault as { what: string }).what === 'title'),
    ).toEqual([])
    const layout = edit.layouts[0] as Layout
    layout.arrangement = {
      ...layout.arrangement,
      tree: {
        kind: 'stack',
        axis: 'column',
        gap: 0,
        children: [
          { extent: { kind: 'weight', weight: 8 }, node: layout.arrangement.tree },
          { extent: { kind: 'weight', weight: 2 }, node: { kind: 'titleArea' } },
        ],
      },
    }
    const [under] = of(found(edit, { outlet }), 'under-controls').filter((f) => f.severity === 'warn')
    expect(under).toMatchObject({ severity: 'warn', fault: { what: 'title', zone: 'Name and text' } })
    expect((under?.fault as { share: number }).share).toBeGreaterThan(0.7)
  })

  it('a rate that the recording’s frames do not fall onto; the recording’s own is the remedy', () => {
    const edit = clean()
    edit.highlight.output = { ...edit.highlight.output, frameRate: { num: 25, den: 1 } }
    expect(of(found(edit), 'rate-mismatch')).toMatchObject([
      {
        severity: 'note',
        fault: { recorded: { num: 60, den: 1 }, output: { num: 25, den: 1 } },
        remedy: { kind: 'own-rate' },
      },
    ])
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
    expect(found(edit, { loudness: loud(-23, -12) })).toMatchObject([
      { severity: 'warn', fault: { kind: 'loudness', lufs: -23 }, remedy: { kind: 'gain', db: 9, limitDb: null } },
    ])
    // Where peaks forbid it, they are held under what is allowed; not by more than can be borne.
    expect(gain(edit, -23, -6)).toEqual({ kind: 'gain', db: 9, limitDb: -1 })
    expect(gain(edit, -34, -1)).toEqual({ kind: 'gain', db: 9, limitDb: -1 })
    expect(gain(edit, -9, -0.5)).toEqual({ kind: 'gain', db: -5, limitDb: null })
    edit.highlight.passages = edit.highlight.passages.map((p) => ({ ...p, sound: { ...p.sound, gainDb: 22 } }))
    expect(gain(edit, -23, -12)).toBeNull()
  })

  it('peaks that would be clipped, and silence, which is nobody’s mistake', () => {
    const edit = clean()
    expect(found(edit, { loudness: loud(-14, 0.6) })).toMatchObject([
      { severity: 'warn', fault: { kind: 'peak', peakDb: 0.6 }, remedy: { kind: 'gain', db: 0, limitDb: -1 } },
    ])
    expect(found(edit, { loudness: loud(-120, -120) })).toEqual([])
  })
})

describe('words', () => {
  const cue = (id: string, text: string, from: number, to: number) => ({
    id: id as CueId,
    recordingId: 'r' as RecordingId,
    fromMicros: from * 1e6,
    toMicros: to * 1e6,
    text,
    words: [],
    speakerId: null,
  })

  it('a line that is gone before it is read, with its speed; the remedy lets it stand as long as there is room', () => {
    const edit = clean()
    edit.highlight.words = {
      ...edit.highlight.words,
      cues: [cue('a', 'Three seconds up on the board, now!', 13, 14), cue('b', 'Clean turn.', 16, 17)],
    }
    const [hard, ...others] = of(found(edit), 'hard-to-read')
    expect(others).toEqual([])
    expect(hard).toMatchObject({ severity: 'warn', fault: { cueId: 'a', perSecond: 35 }, fromMicros: 1_000_000 })
    if (hard?.remedy?.kind !== 'lengthen-cue') throw new Error('no remedy')
    expect(hard.remedy.toMicros).toBeLessThanOrEqual(16_000_000)
    const { toMicros } = hard.remedy
    edit.highlight.words = {
      ...edit.highlight.words,
      cues: edit.highlight.words.cues.map((c) => (c.id === 'a' ? { ...c, toMicros } : c)),
    }
    expect(of(found(edit), 'hard-to-read')).toEqual([])
  })

  it('names letters that no font has, where they stand', () => {
    const edit = sampleEdit()
    edit.highlight.words = {
      ...edit.highlight.words,
      titles: [{ id: 't' as TitleId, text: 'Lift \u{10FFFE}!', fromMicros: null, toMicros: null, style: PLAIN_TEXT }],
    }
    expect(of(found(edit, { missingGlyphs: new Set(['\u{10FFFE}']) }), 'missing-glyphs')).toMatchObject([
      { severity: 'warn', titleId: 't', fault: { what: 'title', letters: '\u{10FFFE}' } },
    ])
    expect(of(found(edit), 'missing-glyphs')).toEqual([])
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
    const title = {
      id: 't' as TitleId,
      fromMicros: null,
      toMicros: null,
      style: { ...PLAIN_TEXT, size: 0.2, lines: 1 },
    }
    edit.highlight.words = { ...edit.highlight.words, titles: [{ ...title, text: 'Gate' }] }
    expect(of(found(edit, { measure }), 'does-not-fit')).toEqual([])
    edit.highlight.words = {
      ...edit.highlight.words,
      titles: [{ ...title, text: 'The last gate before the ridge, and no lift anywhere at all' }],
    }
    const [tooLong] = of(found(edit, { measure }), 'does-not-fit')
    expect(tooLong).toMatchObject({ shapeId: 'own', fault: { what: 'title' } })
    cure(edit, tooLong)
    expect(of(found(edit, { measure }), 'does-not-fit')).toEqual([])
  })

  it('a caption in one long line is split in two', () => {
    const edit = clean()
    edit.highlight.shapes = [{ id: 'wide', width: 1920, height: 1080 }]
    const style = { ...PLAIN_TEXT, size: 0.03, lines: 1 }
    edit.highlight.words = {
      ...edit.highlight.words,
      captions: { ...edit.highlight.words.captions, style },
      cues: [cue('a', 'We go along the ridge as far as we can, and then over to the field.', 13, 21)],
    }
    const [long] = of(found(edit, { measure }), 'long-line')
    expect(long).toMatchObject({
      severity: 'warn',
      fault: { characters: 67 },
      remedy: { kind: 'split-cue', cueId: 'a' },
    })
    cure(edit, long)
    expect(of(found(edit, { measure }), 'long-line')).toEqual([])
    expect(edit.highlight.words.cues).toHaveLength(2)
  })

  it('letters that cannot be told from what is behind them, with the contrast; a block behind them', () => {
    const edit = clean()
    const bare = { ...PLAIN_TEXT, shadow: null }
    edit.highlight.words = {
      ...edit.highlight.words,
      titles: [{ id: 't' as TitleId, text: 'Gate', fromMicros: null, toMicros: null, style: bare }],
    }
    const [faint] = of(found(edit), 'low-contrast')
    expect(faint).toMatchObject({
      severity: 'warn',
      fault: { what: 'title', ratio: 1 },
      remedy: { kind: 'style', why: 'contrast', titleId: 't' },
    })
    cure(edit, faint)
    expect(of(found(edit), 'low-contrast')).toEqual([])
    edit.highlight.words = {
      ...edit.highlight.words,
      titles: edit.highlight.words.titles.map((t) => ({
        ...t,
        style: { ...bare, colour: '#777777', block: { behind: 'line', colour: '#555555', opacity: 1, radius: 0 } },
      })),
    }
    const grey = of(found(edit), 'low-contrast')[0]?.fault as { ratio: number }
    expect(grey.ratio).toBeCloseTo(1.66, 2)
    edit.highlight.words = {
      ...edit.highlight.words,
      titles: edit.highlight.words.titles.map((t) => ({
        ...t,
        style: { ...bare, outline: { colour: '#000000', width: 0.1 } },
      })),
    }
    expect(of(found(edit), 'low-contrast')).toEqual([])
  })
})

it('findings come worst first; a cause is another one when its number changes', () => {
  const make = (key: string, severity: Finding['severity'], factor: number): Finding => ({
    key,
    severity,
    fault: { kind: 'blown-up', role: 'face', factor },
    shapeId: null,
    passageId: null,
    panelId: null,
    fromMicros: 0,
    toMicros: 1,
    rect: null,
    remedy: null,
  })
  expect(worstFirst([make('a', 'note', 1.6), make('b', 'stop', 9), make('c', 'warn', 3)]).map((f) => f.key)).toEqual([
    'b',
    'c',
    'a',
  ])
  expect(causeOf(make('a', 'note', 1.601))).toBe(causeOf(make('a', 'note', 1.604)))
  expect(causeOf(make('a', 'note', 1.6))).not.toBe(causeOf(make('a', 'note', 2.4)))
})

it(`a crop that is cleared shows nothing of what is to go, stays inside and keeps its proportion (seed ${SEED})`, () => {
  const { next } = seeded(SEED)
  let cleared = 0
  for (let n = 0; n < 500; n++) {
    const bounds = { x: 100 * next(), y: 100 * next(), width: 400 + 1200 * next(), height: 300 + 700 * next() }
    const size = { width: bounds.width * (0.2 + 0.8 * next()), height: bounds.height * (0.2 + 0.8 * next()) }
    const crop = {
      ...size,
      x: bounds.x + (bounds.width - size.width) * next(),
      y: bounds.y + (bounds.height - size.height) * next(),
    }
    const out = {
      x: bounds.x + bounds.width * next() * 0.8,
      y: bounds.y + bounds.height * next() * 0.8,
      width: bounds.width * 0.3 * next(),
      height: bounds.height * 0.3 * next(),
    }
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

it('a remedy that moves something leads from how things are to where it ends; others are done or not', () => {
  const edit = clean()
  const move = {
    kind: 'move-crop',
    passageId: edit.highlight.passages[0]?.id as PassageId,
    correction: { panelId: 'low' as PanelId, shapeId: 'own', dx: 0.2, dy: -0.1, zoom: 2 },
  } as const
  expect(partly(edit, move, 0.5)).toMatchObject({ correction: { dx: 0.1, dy: -0.05, zoom: 1.5 } })
  expect(partly(edit, move, 1)).toEqual(move)
  expect(partly(edit, { kind: 'own-rate' }, 0.5)).toBeNull()
})
