import { beforeEach, expect, it } from 'vitest'
import type { EditSession } from '@/store/highlights'
import { addMark, placeMark, removeMark, setMark } from './marks'
import { sampleEdit } from '../../tests/support/edits'
import { markRect } from '@/core/layout/markRects'
import { brandedMark } from '@/core/layout/branded'
import { highlight } from '@/core/model/highlight'
import type { MarkId } from '@/core/model/ids'
import { MAX_MARKS, newMark, type HungMark, type MarkOf } from '@/core/model/pictureMark'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { Session } from '@/store/session'

let session: EditSession
beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written'))
})
const id = 'm' as MarkId
const marks = () => session.value.highlight.marks
const handle = () => marks()[0] as MarkOf<'handle'>

it('marks are put on, changed, moved and taken away, each a step of undo, and every state can be stored', () => {
  addMark(session, { mark: newMark(id, { kind: 'handle' }), label: 'Add handle' })
  for (const text of ['h', 'he', 'heron'])
    setMark(session, { mark: handle(), label: 'Write the handle', change: { text } }, 'one visit')
  setMark(session, { mark: handle(), label: 'When it shows', change: { fromMicros: 1_000_000 } })
  const [tall, , square] = STANDARD_SHAPES
  if (!tall || !square) throw new Error('no shapes')
  const before = markRect(handle(), [], square)
  placeMark(session, { id, shape: tall, rect: { x: 600, y: 1500, width: 400, height: 50 } }, 'drag')
  expect(markRect(handle(), [], tall)).toMatchObject({ x: 600, y: 1500 })
  // Where somebody put it, it stays.
  expect(handle().findsPlace).toBe(false)
  expect(markRect(handle(), [], square)).not.toEqual(before)
  expect(highlight.safeParse(session.value.highlight).success).toBe(true)
  removeMark(session, { id })
  expect(marks()).toEqual([])
  session.undo()
  session.undo()
  expect(markRect(handle() as HungMark, [], square)).toEqual(before)
  expect(handle().findsPlace).toBe(true)
  session.undo()
  expect(handle()).toMatchObject({ text: 'heron', fromMicros: null })
  session.undo()
  expect(handle().text).toBe('')
  session.undo()
  expect(marks()).toEqual([])
})

it('there is room for a number of them, and a change meant for another kind is not made', () => {
  for (let n = 0; n < MAX_MARKS; n++)
    expect(addMark(session, { mark: newMark(`m${n}` as MarkId, { kind: 'progress' }), label: 'Add' })).toBe(true)
  expect(addMark(session, { mark: newMark('more' as MarkId, { kind: 'progress' }), label: 'Add' })).toBe(false)
  const [first] = marks()
  if (!first) throw new Error('no mark')
  setMark(session, {
    mark: { ...newMark(first.id, { kind: 'handle' }) } as MarkOf<'handle'>,
    label: 'Write the handle',
    change: { text: 'heron' },
  })
  expect(marks()[0]).toEqual(first)
})

it('a brand gives marks its colours and its font, and leaves pictures as they are', () => {
  const brand = {
    palette: { ground: '#102030', ink: '#f4f2ec', accent: '#c98a1b' },
    fonts: { title: 'Anton', captions: 'Lora' },
  }
  expect(brandedMark(newMark(id, { kind: 'progress' }), brand)).toMatchObject({ colour: '#c98a1b', behind: '#102030' })
  expect(brandedMark(newMark(id, { kind: 'endCard' }), brand)).toMatchObject({
    ground: '#102030',
    style: { font: 'Anton', colour: '#f4f2ec' },
  })
  expect(brandedMark(newMark(id, { kind: 'countdown' }), brand)).toMatchObject({
    style: { font: 'Anton', colour: '#ffffff' },
  })
  const picture = newMark(id, { kind: 'picture', imageFileId: 'i' as never })
  expect(brandedMark(picture, brand)).toBe(picture)
})

it('a mark of which another lies in the same corner is put beside it, within the picture', () => {
  for (let n = 0; n < 3; n++)
    addMark(session, { mark: newMark(`h${n}` as MarkId, { kind: 'handle' }), label: 'Add handle' })
  const places = marks().filter((m): m is HungMark => 'anchor' in m)
  for (const shape of STANDARD_SHAPES) {
    const rects = places.map((mark) => markRect(mark, [], shape))
    expect(new Set(rects.map(({ x, y }) => `${Math.round(x)} ${Math.round(y)}`)).size).toBe(3)
    for (const { x, y, width, height } of rects) {
      expect(x).toBeGreaterThanOrEqual(0)
      expect(y).toBeGreaterThanOrEqual(0)
      expect(x + width).toBeLessThanOrEqual(shape.width)
      expect(y + height).toBeLessThanOrEqual(shape.height)
    }
  }
})
