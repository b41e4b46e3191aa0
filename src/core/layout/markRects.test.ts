import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { contains } from '../geometry/rect'
import type { ImageFileId, MarkId } from '../model/ids'
import type { ImageFile } from '../model/imageFile'
import { ANCHORS } from '../model/inset'
import { newRecord } from '../model/record'
import { isHung, newMark, pictureMark, type HungMark, type PictureMark } from '../model/pictureMark'
import { STANDARD_SHAPES } from '../model/shape'
import { endCardPlaces, markAt, markRect } from './markRects'

const badge: ImageFile = {
  ...newRecord('2026-11-25T10:00:00.000Z'),
  id: 'badge' as ImageFileId,
  name: 'badge',
  fileName: 'badge.png',
  sizeBytes: 1,
  width: 300,
  height: 200,
}
const KINDS = ['handle', 'level', 'countdown', 'progress', 'endCard'] as const
const all: PictureMark[] = [
  newMark('p' as MarkId, { kind: 'picture', imageFileId: badge.id }),
  ...KINDS.map((kind) => newMark(kind as MarkId, { kind })),
]
const hung = all.filter(isHung)

describe('marks', () => {
  it('are valid as they are first put on, and hidden by nothing: inside every shape, on even pixels', () => {
    for (const mark of all) expect(pictureMark.parse(mark)).toEqual(mark)
    for (const mark of hung)
      for (const shape of STANDARD_SHAPES) {
        const rect = markRect(mark, [badge], shape)
        expect(contains({ x: 0, y: 0, width: shape.width, height: shape.height }, rect)).toBe(true)
        for (const side of Object.values(rect)) expect(side % 2).toBe(0)
      }
  })

  it('are as wide in every shape, measured by its shorter side, and a picture keeps its proportion', () => {
    for (const mark of hung)
      for (const shape of STANDARD_SHAPES)
        expect(markRect(mark, [badge], shape).width / Math.min(shape.width, shape.height)).toBeCloseTo(mark.width, 2)
    const { width, height } = markRect(hung[0] as HungMark, [badge], { width: 1080, height: 1920 })
    expect(width / height).toBeCloseTo(1.5, 1)
  })

  it(`lie where they were put, whatever the anchor that they then hang on (seed ${SEED})`, () => {
    const { next } = seeded(SEED)
    for (let n = 0; n < 300; n++) {
      const mark = {
        ...(hung[n % hung.length] as HungMark),
        anchor: ANCHORS[n % ANCHORS.length] as (typeof ANCHORS)[number],
      }
      const shape = STANDARD_SHAPES[n % STANDARD_SHAPES.length] as (typeof STANDARD_SHAPES)[number]
      const own = markRect(mark, [badge], shape)
      const scale = 0.6 + 0.8 * next()
      const wanted = { width: own.width * scale, height: own.height * scale, x: 0, y: 0 }
      wanted.x = next() * (shape.width - wanted.width)
      wanted.y = next() * (shape.height - wanted.height)
      const put = markAt(mark, [badge], wanted, shape)
      const rect = markRect(put, [badge], shape)
      expect(Math.abs(rect.x - wanted.x), `${mark.kind} x`).toBeLessThanOrEqual(3)
      expect(Math.abs(rect.y - wanted.y), `${mark.kind} y`).toBeLessThanOrEqual(3)
      expect(Math.abs(rect.width - wanted.width), `${mark.kind} width`).toBeLessThanOrEqual(3)
      expect(Math.abs(rect.height - wanted.height), `${mark.kind} height`).toBeLessThanOrEqual(4)
      expect(pictureMark.safeParse(put).success).toBe(true)
    }
  })
})

it('an end card shows its picture above its words, neither cut nor over the other', () => {
  const canvas = { width: 1080, height: 1920 }
  const { picture, text } = endCardPlaces(canvas, badge, true)
  expect(picture && picture.width / picture.height).toBeCloseTo(1.5, 1)
  expect(picture && picture.y + picture.height).toBeLessThanOrEqual(text.y)
  expect(contains({ x: 0, y: 0, ...canvas }, text)).toBe(true)
  expect(endCardPlaces(canvas, null, true).picture).toBeNull()
})
