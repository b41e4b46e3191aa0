import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { Rect } from '../geometry/rect'
import type { MarkId, PanelId, RegionId, TitleId } from '../model/ids'
import { newPanel } from '../model/panel'
import { markAt } from '../layout/markRects'
import { newMark, type HungMark } from '../model/pictureMark'
import { newRegion } from '../model/region'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { PLAIN_TEXT } from '../model/textStyle'
import { markPlace } from './markPlaces'
import { placeOnCanvas } from './panelCrop'
import { placePanels } from './placePanels'

const level = newMark('level' as MarkId, { kind: 'level' }) as HungMark
const handle = newMark('handle' as MarkId, { kind: 'handle' }) as HungMark

function editWith(...marks: HungMark[]) {
  const edit = sampleEdit()
  edit.highlight.marks = marks
  return edit
}

const meet = (a: Rect, b: Rect) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

/** The middle of the camera's picture on the canvas, where a head is. */
function headIn(edit: ReturnType<typeof sampleEdit>, shape: Shape): Rect {
  const [passage] = edit.highlight.passages
  const face = passage && placePanels(edit, shape, passage).find((p) => p.region?.role === 'face')
  if (!face) throw new Error('no face')
  const { x, y, width, height } = face.rect
  return { x: x + 0.3 * width, y: y + 0.15 * height, width: 0.4 * width, height: 0.5 * height }
}

describe.each(STANDARD_SHAPES)('in $id', (shape) => {
  it('what finds its place is inside the shape, clear of the head and of what else does', () => {
    const edit = editWith(level, handle)
    const [one, other] = [level, handle].map((m) => markPlace(edit, shape, m).rect)
    if (!one || !other) throw new Error('no places')
    for (const rect of [one, other]) {
      expect(rect.x >= 0 && rect.y >= 0 && rect.x + rect.width <= shape.width).toBe(true)
      expect(rect.y + rect.height).toBeLessThanOrEqual(shape.height)
      for (const side of Object.values(rect)) expect(side % 2).toBe(0)
      expect(meet(rect, headIn(edit, shape))).toBe(false)
    }
    expect(meet(one, other)).toBe(false)
  })

  it('keeps clear of a score that the game’s panel shows as well', () => {
    const edit = editWith(level)
    const score = { x: 640 / 1920, y: 500 / 1080, width: 480 / 1920, height: 200 / 1080 }
    const [setup] = edit.setups
    if (!setup) throw new Error('no setup')
    setup.regions.push(newRegion('score' as RegionId, 'hud', 'Score', score))
    const [passage] = edit.highlight.passages
    const game = passage && placePanels(edit, shape, passage).find((p) => p.region?.role === 'game')?.picture
    if (!game) throw new Error('no game')
    const { crop, dest } = game
    const onCanvas = {
      x: dest.x + ((score.x * 1920 - crop.x) * dest.width) / crop.width,
      y: dest.y + ((score.y * 1080 - crop.y) * dest.height) / crop.height,
      width: (score.width * 1920 * dest.width) / crop.width,
      height: (score.height * 1080 * dest.height) / crop.height,
    }
    expect(meet(markPlace(edit, shape, level).rect, onCanvas)).toBe(false)
  })

  it('keeps clear of where a title stands', () => {
    const edit = editWith(level)
    const title = { id: 't' as TitleId, text: 'Last gate', fromMicros: null, toMicros: null, style: PLAIN_TEXT }
    edit.highlight.words = { ...edit.highlight.words, titles: [title] }
    const before = markPlace(edit, shape, level).rect
    expect(before.y > 0.2 * shape.height || before.y + before.height < 0.07 * shape.height).toBe(true)
  })
})

it('the same edit gives the same place, and one that was moved stays where it was put', () => {
  const [shape] = STANDARD_SHAPES
  if (!shape) throw new Error('no shape')
  const rect = markPlace(editWith(level), shape, level).rect
  expect(markPlace(editWith(level), shape, level).rect).toEqual(rect)
  const moved = {
    ...markAt(level, [], { x: 100, y: 60, width: rect.width, height: rect.height }, shape),
    findsPlace: false,
  }
  expect(markPlace(editWith(moved), shape, moved).rect).toMatchObject({ x: 100, y: 60 })
})

it('keeps clear of the head in a picture that is flipped', () => {
  const [shape] = STANDARD_SHAPES
  if (!shape) throw new Error('no shape')
  const edit = editWith(level)
  // All of the canvas is the camera's picture, with the head at its left side, seen at the right.
  const [setup, layout] = [edit.setups[0], edit.layouts[0]]
  const face = setup?.regions.find((r) => r.role === 'face')
  if (!setup || !layout || !face) throw new Error('no face')
  face.bounds = { x: 0, y: 0, width: (1080 * 9) / 16 / 1920, height: 1 }
  face.focus = { x: 0, y: 0, width: (0.5 * 1080 * 9) / 16 / 1920, height: 1 }
  layout.arrangement = { ...layout.arrangement, tree: { ...newPanel('one' as PanelId, 'face'), flip: true } }
  const { x, width } = markPlace(edit, shape, level).rect
  expect(x + width).toBeLessThanOrEqual(shape.width / 2)
})

it.each([
  [
    { turn: 0, flip: false },
    { x: 100, y: 200, width: 100, height: 100 },
  ],
  [
    { turn: 0, flip: true },
    { x: 400, y: 200, width: 100, height: 100 },
  ],
  // A quarter turn to the right brings the upper left corner to the upper right.
  [
    { turn: 1, flip: false },
    { x: 400, y: 200, width: 100, height: 100 },
  ],
  [
    { turn: 2, flip: false },
    { x: 400, y: 500, width: 100, height: 100 },
  ],
  [
    { turn: 3, flip: false },
    { x: 100, y: 500, width: 100, height: 100 },
  ],
] as const)('the upper left quarter of a crop lies where %o brings it', (orientation, place) => {
  const picture = {
    crop: { x: 10, y: 20, width: 40, height: 40 },
    dest: { x: 100, y: 200, width: 400, height: 400 },
  }
  expect(placeOnCanvas({ x: 0, y: 0, width: 20, height: 30 }, picture, orientation)).toEqual(place)
  expect(placeOnCanvas({ x: 60, y: 0, width: 20, height: 30 }, picture, orientation)).toBeNull()
})
