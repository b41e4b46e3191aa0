import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { intersection, type Rect } from '../geometry/rect'
import { arrangementFor } from '../layout/arrangementFor'
import { solve } from '../layout/solve'
import { arrangeFor, STARTING_LAYOUTS } from '../layout/startingLayouts'
import type { Edit } from '../model/edit'
import type { InsetId, PanelId, RegionId, TitleId } from '../model/ids'
import { PLAIN_TEXT } from '../model/textStyle'
import { newRegion, type Region } from '../model/region'
import { STANDARD_SHAPES } from '../model/shape'
import { findingsOf, NOTHING_MEASURED } from '../findings/findings'
import { timeMapOf } from '../time/timeMap'
import { answerIn, arrangementIn, isCrowded, wordAreasIn } from './arrangementIn'
import { compose } from './compose'
import { placeOnCanvas } from './panelCrop'
import { placePanels } from './placePanels'
import { inOrder, suitEach, suitedLayouts } from './suitedLayouts'

const FRAME = { width: 1920, height: 1080 }
const region = (id: string, role: string, px: Rect, head?: Rect): Region => {
  const share = ({ x, y, width, height }: Rect): Rect => ({
    x: x / FRAME.width,
    y: y / FRAME.height,
    width: width / FRAME.width,
    height: height / FRAME.height,
  })
  return { ...newRegion(id as RegionId, role, id, share(px)), ...(head && { head: share(head) }) }
}
const FACE = region(
  'face',
  'face',
  { x: 1400, y: 756, width: 480, height: 270 },
  { x: 1570, y: 800, width: 150, height: 180 },
)
const GAME = region('game', 'game', { x: 0, y: 0, width: 1390, height: 1080 })
const SLIDES = region('slides', 'slides', { x: 32, y: 100, width: 1360, height: 765 })

/** The sample with these regions in a starting layout that adapts, in all standard shapes. */
function editOf(id: string, regions: Region[], as: { title?: boolean } = {}): Edit {
  const edit = sampleEdit()
  const starting = STARTING_LAYOUTS.find((s) => s.id === id)
  const [setup, layout] = [edit.setups[0], edit.layouts[0]]
  if (!starting || !setup || !layout) throw new Error(`no layout ${id}`)
  setup.regions = regions
  layout.adapts = true
  layout.arrangement = arrangeFor(
    starting,
    regions.map((r) => r.role),
    (role, n) => `${role} ${n}` as PanelId,
    () => 'inset' as InsetId,
  )
  edit.highlight.shapes = [...STANDARD_SHAPES]
  if (as.title)
    edit.highlight.words.titles = [
      { id: 't' as TitleId, text: 'Last gate', fromMicros: null, toMicros: null, style: PLAIN_TEXT },
    ]
  return edit
}

const passageOf = (edit: Edit) => edit.highlight.passages[0] as Edit['highlight']['passages'][number]

/** Where a part of the frame lies on a canvas, in each panel that shows it. */
function shownAt(edit: Edit, shape: (typeof STANDARD_SHAPES)[number], px: Rect): Rect[] {
  return placePanels(edit, shape, passageOf(edit)).flatMap(({ picture, panel }) => {
    const seen = picture && placeOnCanvas(px, picture, panel)
    return seen ? [seen] : []
  })
}

const HEAD = { x: 1570, y: 800, width: 150, height: 180 }
const READ = { x: 32, y: 100, width: 1360, height: 765 }

describe.each(STANDARD_SHAPES)('in $id', (shape) => {
  it('slides are whole, in their own proportion', () => {
    const edit = editOf('face-over-game', [FACE, SLIDES])
    const [slides] = placePanels(edit, shape, passageOf(edit)).flatMap((p) =>
      p.region?.role === 'slides' && p.picture ? [p.picture] : [],
    )
    if (!slides) throw new Error('no slides')
    for (const side of ['x', 'y', 'width', 'height'] as const)
      expect(Math.abs(slides.crop[side] - READ[side])).toBeLessThan(8)
    expect(slides.dest.width / slides.dest.height).toBeCloseTo(slides.crop.width / slides.crop.height, 5)
  })

  it.each(['face-over-game', 'game-over-face', 'porthole', 'corner-card'])(
    '%s: the head is whole, once, and no title lies on it',
    (id) => {
      const edit = editOf(id, [FACE, GAME], { title: true })
      const heads = shownAt(edit, shape, HEAD)
      expect(heads).toHaveLength(1)
      const { titleArea } = wordAreasIn(edit, passageOf(edit), shape)
      for (const head of heads) {
        expect(head.width / head.height).toBeCloseTo(HEAD.width / HEAD.height, 1)
        const both = intersection(head, titleArea)
        expect(!both || both.width < 4 || both.height < 4).toBe(true)
      }
    },
  )

  it('is arranged as before where the layout does not adapt', () => {
    const edit = editOf('porthole', [FACE, SLIDES], { title: true })
    const [layout] = edit.layouts
    if (!layout) throw new Error('no layout')
    layout.adapts = false
    expect(arrangementIn(edit, passageOf(edit), shape)).toEqual(arrangementFor(layout, shape))
  })

  it('has what somebody arranged there to the pixel', () => {
    const edit = editOf('face-over-game', [FACE, SLIDES], { title: true })
    const [layout] = edit.layouts
    if (!layout) throw new Error('no layout')
    const own = arrangementFor(layout, shape)
    layout.perShape[shape.id] = own
    expect(arrangementIn(edit, passageOf(edit), shape)).toEqual(own)
  })

  it('bands that somebody sized stay, an inset that somebody placed stays', () => {
    const edit = editOf('face-over-game', [FACE, GAME], { title: true })
    const [layout] = edit.layouts
    if (layout?.arrangement.tree.kind !== 'stack') throw new Error('no stack')
    layout.arrangement.tree.held = true
    layout.arrangement.tree.children[0] = {
      extent: { kind: 'fixed', fraction: 0.08 },
      node: layout.arrangement.tree.children[0]?.node as never,
    }
    const sizes = (a: Parameters<typeof solve>[0]) => solve(a, shape).panels.map((p) => p.rect)
    expect(sizes(arrangementIn(edit, passageOf(edit), shape))).toEqual(sizes(arrangementFor(layout, shape)))
    const card = editOf('corner-card', [FACE, SLIDES])
    const inset = card.layouts[0]?.arrangement.insets[0]
    if (!inset) throw new Error('no inset')
    inset.held = true
    const placed = arrangementIn(card, passageOf(card), shape).insets[0]
    expect(placed?.anchor).toBe(arrangementFor(card.layouts[0] as never, shape).insets[0]?.anchor)
  })
})

it('is the same for the same edit, and remembered', () => {
  const edit = editOf('porthole', [FACE, GAME], { title: true })
  const [shape] = STANDARD_SHAPES
  if (!shape) throw new Error('no shape')
  const answer = answerIn(edit, passageOf(edit), shape)
  expect(answerIn(edit, passageOf(edit), shape)).toBe(answer)
  expect(answerIn(structuredClone(edit), passageOf(edit), shape)).toEqual(answer)
})

it('a crop that somebody moved changes no arrangement', () => {
  const edit = editOf('face-over-game', [FACE, GAME], { title: true })
  const [shape] = STANDARD_SHAPES
  if (!shape) throw new Error('no shape')
  const before = arrangementIn(edit, passageOf(edit), shape)
  const moved = structuredClone(edit)
  passageOf(moved).corrections = [{ panelId: 'face 0' as PanelId, shapeId: null, dx: 0.2, dy: 0.2, zoom: 3 }]
  expect(arrangementIn(moved, passageOf(moved), shape)).toEqual(before)
})

it('a picture that is shown whole is enlarged by hand until it fills its panel, and can be shifted then', () => {
  const edit = editOf('afloat', [GAME])
  const [tall] = STANDARD_SHAPES
  if (!tall) throw new Error('no shape')
  const shownWith = (zoom: number, dx = 0) => {
    passageOf(edit).corrections = [{ panelId: 'whole 0' as PanelId, shapeId: null, dx, dy: 0, zoom }]
    const [placed] = placePanels(structuredClone(edit), tall, passageOf(edit))
    if (!placed?.picture) throw new Error('no picture')
    return placed.picture
  }
  expect(shownWith(1).dest).toEqual({ x: 0, y: 656, width: 1080, height: 608 })
  expect(shownWith(1).crop.width).toBeCloseTo(1920, -1)
  const twice = shownWith(2)
  expect(twice.dest).toMatchObject({ width: 1080, height: 1216 })
  expect(twice.crop.width).toBeCloseTo(960, -1)
  expect(twice.crop.height).toBeCloseTo(1080, -1)
  expect(shownWith(2, 0.1).crop.x - twice.crop.x).toBeCloseTo(192, 0)
  const filled = shownWith(6)
  expect(filled.dest).toEqual({ x: 0, y: 0, width: 1080, height: 1920 })
  expect(filled.dest.width / filled.crop.width).toBeCloseTo((6 * 1080) / 1920, 1)
  // In a layout that does not adapt it is what it always was.
  for (const layout of edit.layouts) layout.adapts = false
  expect(shownWith(6).dest).toEqual({ x: 0, y: 656, width: 1080, height: 608 })
})

it('words that have no clear place get a block, and that is found', () => {
  const all = region('slides', 'slides', { x: 0, y: 0, width: 1920, height: 1080 })
  const edit = editOf('game-alone', [all], { title: true })
  const wide = STANDARD_SHAPES.find((s) => s.id === 'wide')
  const [layout] = edit.layouts
  if (!wide || !layout) throw new Error('no wide shape')
  const blockIn = (some: Edit) => {
    const title = compose(some, timeMapOf(some.highlight), wide, 1_000_000)?.steps.find((s) => s.kind === 'text')
    return title?.kind === 'text' ? title.style.block : undefined
  }
  expect(isCrowded(edit, passageOf(edit), wide)).toBe(false)
  expect(blockIn(edit)).toBeNull()
  // Somebody wants it to fill this shape.
  const filled = { ...edit, layouts: [{ ...layout, perShape: { wide: layout.arrangement } }] }
  expect(isCrowded(filled, passageOf(filled), wide)).toBe(true)
  expect(blockIn(filled)).toMatchObject({ behind: 'line' })
  const kinds = findingsOf(filled, NOTHING_MEASURED, () => null).map((f) => [f.fault.kind, f.shapeId])
  expect(kinds).toContainEqual(['no-clear-place', 'wide'])
})

describe('layouts are offered', () => {
  const ids = { panel: (role: string, n: number) => `${role} ${n}` as PanelId, inset: () => 'i' as InsetId }
  const offered = (regions: Region[]) => {
    const edit = editOf('face-over-game', regions, { title: true })
    return suitedLayouts(edit, passageOf(edit), ids)
  }

  it('in the order in which they suit, those that cannot be right last, with what would be wrong', () => {
    const streams = offered([FACE, GAME])
    expect(streams[0]?.starting.id).toBe('face-over-game')
    expect(streams).toHaveLength(STARTING_LAYOUTS.length)
    const first = streams.findIndex((s) => s.faults.length > 0)
    expect(streams.slice(first).every((s) => s.faults.length > 0)).toBe(true)
    const faultsOf = (id: string) => streams.find((s) => s.starting.id === id)?.faults
    expect(faultsOf('three-bands')).toContain('repeats')
    expect(faultsOf('extra-strip')).toContain('missing')
    expect(faultsOf('mirror-lake')).toContain('repeats')
    expect(faultsOf('porthole')).toEqual([])
  })

  it('for people in equal parts, as many as there are', () => {
    const tile = (n: number, of: number) =>
      region(
        `speaker ${n}`,
        'speaker',
        { x: (n % 2) * 960, y: Math.floor(n / 2) * 540 + (of === 2 ? 270 : 0), width: 960, height: 540 },
        { x: (n % 2) * 960 + 380, y: Math.floor(n / 2) * 540 + 90 + (of === 2 ? 270 : 0), width: 200, height: 260 },
      )
    expect(offered([0, 1].map((n) => tile(n, 2)))[0]?.starting.id).toBe('two-people')
    expect(offered([0, 1, 2, 3].map((n) => tile(n, 4)))[0]?.starting.id).toBe('everyone-alike')
  })

  it('one by one as all at once', () => {
    const edit = editOf('face-over-game', [FACE, GAME])
    expect(inOrder([...suitEach(edit, passageOf(edit), ids)])).toEqual(suitedLayouts(edit, passageOf(edit), ids))
  })
})
