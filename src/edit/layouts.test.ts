import { describe, expect, it } from 'vitest'
import type { EditSession } from '@/store/highlights'
import {
  addBand,
  addInset,
  applyLayout,
  clearCrop,
  dragSeam,
  equalBands,
  followOthers,
  goOwnWay,
  idsInUse,
  nudgeCrop,
  placeInset,
  removePanel,
  setAdapts,
  setArea,
  setBackdrop,
  setGap,
  setPanel,
  swapBands,
  swapPanels,
  type Chosen,
} from './layouts'
import { applyBrand, applyRecipe } from './recipes'
import { noteHeads } from './records'
import { sampleEdit } from '../../tests/support/edits'
import { arrangementIn } from '@/core/compose/arrangementIn'
import { placePanels } from '@/core/compose/placePanels'
import { arrangementFor } from '@/core/layout/arrangementFor'
import { arrangeFor, STARTING_LAYOUTS } from '@/core/layout/startingLayouts'
import { solve } from '@/core/layout/solve'
import { panelsOf } from '@/core/layout/tree'
import type { Brand } from '@/core/model/brand'
import {
  newId,
  type BrandId,
  type InsetId,
  type LayoutId,
  type MarkId,
  type PanelId,
  type PassageId,
  type RecipeId,
  type RegionId,
  type SetupId,
} from '@/core/model/ids'
import { newLayout, type Layout } from '@/core/model/layout'
import { edit as editSchema } from '@/core/model/edit'
import { USUAL_OUTPUT } from '@/core/model/outputChoice'
import { newMark } from '@/core/model/pictureMark'
import { newRecord } from '@/core/model/record'
import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'
import { Session } from '@/store/session'
import { PLAIN_TEXT, type TextStyle } from '@/core/model/textStyle'

const shapeNamed = (id: string) => STANDARD_SHAPES.find((s) => s.id === id) as Shape
const [tall, wide, square] = [shapeNamed('tall'), shapeNamed('wide'), shapeNamed('square')]
const PASSAGE = 'p' as PassageId

function open(): { session: EditSession; layout: () => Layout } {
  const session: EditSession = new Session(sampleEdit(), [], 0, async () => 'written')
  return { session, layout: () => session.value.layouts[0] as Layout }
}

const rectsIn = (layout: Layout, shape: Shape) => solve(arrangementFor(layout, shape), shape).panels.map((p) => p.rect)

const ownWay = (layout: Layout, shape: Shape) => ({
  layoutId: layout.id,
  shapeId: shape.id,
  arrangement: arrangementFor(layout, shape),
})

function chosen(id: string, layout: Layout): Chosen {
  const starting = STARTING_LAYOUTS.find((s) => s.id === id)
  if (!starting) throw new Error(`no layout ${id}`)
  return {
    name: starting.name,
    arrangement: arrangeFor(starting, ['face', 'game'], idsInUse(layout), () => 'inset' as InsetId),
    perShape: {},
    basedOn: null,
    adapts: false,
  }
}

describe('laying out', () => {
  it('keeps what fits: panels of the same role stay the same, with what the passage knows of them', () => {
    const { session, layout } = open()
    nudgeCrop(
      session,
      {
        passageId: PASSAGE,
        scope: { shape: tall, only: false },
        id: panelsOf(layout().arrangement)[0]?.id as never,
        by: { zoom: 1.5 },
      },
      'g',
    )
    applyLayout(session, PASSAGE, chosen('game-over-face', layout()), true)
    expect(panelsOf(layout().arrangement).map((p) => [p.id, p.role])).toEqual([
      ['low', 'game'],
      ['top', 'face'],
    ])
    expect(session.value.highlight.passages[0]?.corrections[0]).toMatchObject({ panelId: 'top', zoom: 1.5 })
    session.undo()
    expect(panelsOf(layout().arrangement).map((p) => p.id)).toEqual(['top', 'low'])
  })

  it('is for one passage alone where another has the same layout, and undo leads back', () => {
    const { session, layout } = open()
    session.extend((draft) => {
      const [first] = draft.highlight.passages
      if (first) draft.highlight.passages.push({ ...first, id: 'q' as PassageId })
    })
    applyLayout(session, 'q' as PassageId, chosen('porthole', layout()), false)
    const [first, second] = session.value.highlight.passages
    expect(first?.layoutId).toBe('l')
    expect(second?.layoutId).not.toBe('l')
    expect(session.value.layouts).toHaveLength(2)
    session.undo()
    expect(session.value.highlight.passages[1]?.layoutId).toBe('l')
    applyLayout(session, PASSAGE, chosen('afloat', layout()), true)
    expect(session.value.highlight.passages.map((p) => p.layoutId)).toEqual(['l', 'l'])
    expect(editSchema.safeParse(session.value).success).toBe(true)
  })
})

describe('changing places', () => {
  it('of a seam holds for all shapes, or with its own arrangement for one', () => {
    const { session, layout } = open()
    const seamIn = (shape: Shape) => solve(arrangementFor(layout(), shape), shape).seams[0] as never
    dragSeam(
      session,
      { scope: { passageId: PASSAGE, shape: tall, only: false }, seam: seamIn(tall), position: 960 },
      'a',
    )
    expect(rectsIn(layout(), tall).map((r) => r.height)).toEqual([960, 960])
    expect(rectsIn(layout(), wide).map((r) => r.width)).toEqual([960, 960])
    dragSeam(
      session,
      { scope: { passageId: PASSAGE, shape: wide, only: true }, seam: seamIn(wide), position: 480 },
      'b',
    )
    expect(rectsIn(layout(), wide).map((r) => r.width)).toEqual([480, 1440])
    expect(rectsIn(layout(), tall).map((r) => r.height)).toEqual([960, 960])
    followOthers(session, { layoutId: layout().id, shapeId: 'wide' })
    expect(rectsIn(layout(), wide).map((r) => r.width)).toEqual([960, 960])
  })

  it('where a wide shape has other stacks than the rest goes to that shape', () => {
    const { session, layout } = open()
    applyLayout(session, PASSAGE, chosen('extra-strip', layout()), true)
    setArea(session, { layoutId: layout().id, kind: 'titleArea', there: true })
    const before = rectsIn(layout(), tall)
    const seam = solve(arrangementFor(layout(), wide), wide).seams[0]
    if (!seam) throw new Error('no seam')
    dragSeam(session, { scope: { passageId: PASSAGE, shape: wide, only: false }, seam, position: 700 }, 'a')
    expect(layout().perShape.wide).toBeDefined()
    expect(rectsIn(layout(), tall)).toEqual(before)
  })

  it('of an inset in a derived shape is found back in all of them', () => {
    const { session, layout } = open()
    applyLayout(session, PASSAGE, chosen('corner-card', layout()), true)
    const wanted = { x: 1200, y: 700, width: 480, height: 270 }
    placeInset(
      session,
      { scope: { passageId: PASSAGE, shape: wide, only: false }, id: 'inset' as InsetId, rect: wanted },
      'g',
    )
    const got = rectsIn(layout(), wide)[1]
    for (const side of ['x', 'y', 'width', 'height'] as const)
      expect(Math.abs((got?.[side] ?? 0) - wanted[side])).toBeLessThanOrEqual(4)
    expect(layout().perShape).toEqual({})
    expect(layout().arrangement.insets[0]?.anchor).toBe('se')
    goOwnWay(session, ownWay(layout(), square))
    const inSquare = rectsIn(layout(), square)
    placeInset(
      session,
      {
        scope: { passageId: PASSAGE, shape: tall, only: false },
        id: 'inset' as InsetId,
        rect: { x: 0, y: 0, width: 400, height: 226 },
      },
      'h',
    )
    expect(rectsIn(layout(), square)).toEqual(inSquare)
  })
})

describe('a layout that adapts', () => {
  const adapting = () => {
    const opened = open()
    setAdapts(opened.session, { layoutId: opened.layout().id, adapts: true })
    return opened
  }
  const seamIn = (session: EditSession, shape: Shape) => {
    const [passage] = session.value.highlight.passages
    const [seam] = passage ? solve(arrangementIn(session.value, passage, shape), shape).seams : []
    if (!seam) throw new Error('no seam')
    return seam
  }

  it('holds the seam that somebody dragged, to the pixel, and lets go of it with undo', () => {
    const { session, layout } = adapting()
    const at = (position: number, shape: Shape) =>
      dragSeam(session, { scope: { passageId: PASSAGE, shape, only: false }, seam: seamIn(session, shape), position })
    const heights = () =>
      placePanels(session.value, tall, session.value.highlight.passages[0] as never).map((p) => p.rect.height)
    const before = heights()
    at(200, tall)
    expect(heights()).toEqual([200, 1720])
    expect(layout().arrangement.tree).toMatchObject({ held: true })
    session.undo()
    expect(heights()).toEqual(before)
  })

  it('holds an inset that somebody moved, and how somebody had a panel fit', () => {
    const { session, layout } = adapting()
    applyLayout(session, PASSAGE, { ...chosen('corner-card', layout()), adapts: true }, true)
    const rect = { x: 0, y: 1600, width: 400, height: 226 }
    placeInset(session, { scope: { passageId: PASSAGE, shape: tall, only: false }, id: 'inset' as InsetId, rect })
    const placed = placePanels(session.value, tall, session.value.highlight.passages[0] as never)
    expect(placed.find((p) => p.insetId)?.rect).toEqual(rect)
    const id = placed[0]?.panel.id as PanelId
    setPanel(session, { layoutId: layout().id, id, label: 'Fit', change: { fit: 'whole' } })
    expect(panelsOf(layout().arrangement)[0]).toMatchObject({ fit: 'whole', held: true })
    setPanel(session, { layoutId: layout().id, id, label: 'Opacity', change: { opacity: 0.5 } })
    expect(panelsOf(layout().arrangement)[0]).toMatchObject({ opacity: 0.5 })
  })

  it('takes what was measured without a step of the history, and only once', () => {
    const { session } = adapting()
    const head = { x: 0.8, y: 0.75, width: 0.08, height: 0.14 }
    const { steps } = session.store.getState().history
    noteHeads(session, 's' as SetupId, new Map([['f' as RegionId, head]]))
    const noted = session.value
    expect(noted.setups[0]?.regions.map((r) => r.head)).toEqual([head, undefined])
    expect(session.store.getState().history.steps).toEqual(steps)
    noteHeads(session, 's' as SetupId, new Map([['f' as RegionId, { ...head, width: 0.06 }]]))
    expect(session.value).toBe(noted)
    noteHeads(session, 's' as SetupId, new Map([['f' as RegionId, { ...head, x: 0.84 }]]))
    expect(session.value.setups[0]?.regions[0]?.head?.x).toBe(0.8)
    expect(session.value.setups[0]?.regions[0]?.head?.width).toBeCloseTo(0.12)
  })
})

describe('what an arrangement shows', () => {
  it('is changed in every shape at once, and undone in one step', () => {
    const { session, layout } = open()
    goOwnWay(session, ownWay(layout(), wide))
    const before = session.value
    const id = 'band' as PanelId
    addBand(session, { layoutId: layout().id, id, role: 'whole' })
    swapPanels(session, { layoutId: layout().id, one: id, other: 'top' as never })
    setPanel(session, { layoutId: layout().id, id, label: 'Turn', change: { turn: 1, opacity: 0.5 } })
    setGap(session, { layoutId: layout().id, gap: 4 }, 'g')
    setBackdrop(session, { layoutId: layout().id, backdrop: { kind: 'blur', role: 'game', strength: 0.5, darken: 0 } })
    for (const arrangement of [layout().arrangement, layout().perShape.wide as Layout['arrangement']]) {
      expect(panelsOf(arrangement).map((p) => p.id)).toEqual([id, 'low', 'top'])
      expect(panelsOf(arrangement)[0]).toMatchObject({ turn: 1, opacity: 0.5 })
      expect(arrangement.backdrop.kind).toBe('blur')
    }
    expect(rectsIn(layout(), tall).reduce((sum, r) => sum + r.height, 8)).toBe(1920)
    removePanel(session, { layoutId: layout().id, id })
    swapBands(session, { layoutId: layout().id })
    const inset = 'card' as PanelId
    addInset(session, { layoutId: layout().id, id: inset, insetId: newId<InsetId>(), role: 'face' })
    expect(panelsOf(layout().arrangement).map((p) => p.id)).toEqual(['top', 'low', inset])
    expect(editSchema.safeParse(session.value).success).toBe(true)
    for (let i = 0; i < 8; i++) session.undo()
    expect(session.value.layouts).toEqual(before.layouts)
  })

  it('moves a turned panel’s picture where it is dragged to', () => {
    const { session, layout } = open()
    setPanel(session, { layoutId: layout().id, id: 'low' as never, label: 'Turn', change: { turn: 1, zoom: 2 } })
    const cropIn = () =>
      placePanels(session.value, tall, session.value.highlight.passages[0] as never).find((p) => p.panel.id === 'low')
        ?.picture?.crop
    const before = cropIn()
    nudgeCrop(
      session,
      { passageId: PASSAGE, scope: { shape: tall, only: false }, id: 'low' as never, by: { dy: -0.05 } },
      'g',
    )
    expect((before?.y ?? 0) - (cropIn()?.y ?? 0)).toBeCloseTo(0.05 * 1080, 6)
    clearCrop(session, { passageId: PASSAGE, id: 'low' as never })
    expect(cropIn()).toEqual(before)
  })

  it('puts a title’s area above and that of captions below, and makes bands equal to the pixel', () => {
    const { session, layout } = open()
    setArea(session, { layoutId: layout().id, kind: 'captionArea', there: true })
    setArea(session, { layoutId: layout().id, kind: 'titleArea', there: true })
    addBand(session, { layoutId: layout().id, id: newId<PanelId>(), role: 'whole' })
    equalBands(session, { layoutId: layout().id })
    const { panels, areas } = solve(arrangementFor(layout(), tall), tall)
    expect(areas.find((a) => a.kind === 'titleArea')?.rect).toMatchObject({ y: 0, height: 308 })
    const heights = panels.map((p) => p.rect.height)
    expect(Math.max(...heights) - Math.min(...heights)).toBeLessThanOrEqual(2)
    expect(heights.reduce((a, b) => a + b, 0) + areas.reduce((a, b) => a + b.rect.height, 0)).toBe(1920)
    setArea(session, { layoutId: layout().id, kind: 'captionArea', there: false })
    setArea(session, { layoutId: layout().id, kind: 'titleArea', there: false })
    const { panels: three } = solve(arrangementFor(layout(), { id: 'own', width: 2160, height: 3840 }), {
      width: 2160,
      height: 3840,
    })
    expect(three.map((p) => p.rect.height)).toEqual([1280, 1280, 1280])
  })

  it('crops by itself in one shape; the others keep theirs, also when all are moved', () => {
    const { session } = open()
    const cropIn = (shape: Shape) =>
      placePanels(session.value, shape, session.value.highlight.passages[0] as never).find((p) => p.panel.id === 'low')
        ?.picture?.crop.y ?? NaN
    const [inTall, inSquare] = [cropIn(tall), cropIn(square)]
    nudgeCrop(
      session,
      { passageId: PASSAGE, scope: { shape: tall, only: true }, id: 'low' as never, by: { zoom: 2 } },
      'a',
    )
    nudgeCrop(
      session,
      { passageId: PASSAGE, scope: { shape: tall, only: false }, id: 'low' as never, by: { dy: 0.02 } },
      'b',
    )
    expect(cropIn(square)).toBe(inSquare)
    const own = cropIn(tall)
    expect(own).not.toBe(inTall)
    nudgeCrop(
      session,
      { passageId: PASSAGE, scope: { shape: square, only: false }, id: 'low' as never, by: { zoom: 1.5 } },
      'c',
    )
    expect(cropIn(tall)).toBe(own)
    expect(cropIn(square)).not.toBe(inSquare)
    clearCrop(session, { passageId: PASSAGE, id: 'low' as never })
    expect([cropIn(tall), cropIn(square)]).toEqual([inTall, inSquare])
    for (let i = 0; i < 4; i++) session.undo()
    expect([cropIn(tall), cropIn(square)]).toEqual([inTall, inSquare])
  })
})

const TAGGED: TextStyle = { ...PLAIN_TEXT, emphasis: { kind: 'box', colour: '#2e5e3e' } }

describe('recipes and brands', () => {
  const brand: Brand = {
    ...newRecord('2026-11-25T10:00:00.000Z'),
    id: 'b' as BrandId,
    name: 'Heron Ridge',
    tags: [],
    palette: { ground: '#102030', ink: '#f4f2ec', accent: '#c98a1b' },
    fonts: { title: 'Anton', captions: 'Lora' },
    logo: null,
    endCard: null,
    handle: '',
  }

  it('do everything in one step', () => {
    const { session, layout } = open()
    const before = session.value
    const kept = newLayout({
      ...newRecord(brand.createdAt),
      id: 'kept' as LayoutId,
      ownedBy: null,
      ...chosen('porthole', layout()),
      basedOn: null,
    })
    applyRecipe(session, {
      passageId: PASSAGE,
      whole: {
        recipe: {
          ...newRecord(brand.createdAt),
          id: 'r' as RecipeId,
          name: 'Evening',
          tags: [],
          setupId: null,
          layoutId: kept.id,
          brandId: brand.id,
          shapes: [square, wide],
          captions: { shown: true, style: TAGGED, speakers: 'name' },
          marks: [newMark('m' as MarkId, { kind: 'progress' })],
          output: { ...USUAL_OUTPUT, quality: 'high' },
          byItself: false,
        },
        setup: null,
        layout: kept,
        brand,
      },
    })
    expect(session.value.highlight.shapes.map((s) => s.id)).toEqual(['square', 'wide'])
    expect(layout()).toMatchObject({ name: 'Porthole', basedOn: 'kept' })
    expect(layout().arrangement.backdrop).toEqual({ kind: 'colour', colour: '#102030' })
    expect(layout().arrangement.insets[0]?.panel.outline?.border?.colour).toBe('#c98a1b')
    expect(session.value.highlight.words.captions).toEqual({
      shown: true,
      speakers: 'name',
      style: { ...TAGGED, font: 'Lora', emphasis: { kind: 'box', colour: '#c98a1b' } },
    })
    session.undo()
    expect(session.value).toEqual(before)
  })

  it('a brand paints plain grounds and leaves footage alone', () => {
    const { session, layout } = open()
    applyBrand(session, { brand })
    expect(layout().arrangement.backdrop).toEqual({ kind: 'colour', colour: '#102030' })
    setBackdrop(session, { layoutId: layout().id, backdrop: { kind: 'blur', role: 'game', strength: 0.5, darken: 0 } })
    applyBrand(session, { brand })
    expect(layout().arrangement.backdrop.kind).toBe('blur')
    applyBrand(session, { brand: null })
    expect(session.value.highlight.brandId).toBeNull()
  })
})
