import { expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { ImageFileId, MarkId, TitleId } from '../model/ids'
import { newMark, type MarkOf, type PictureMark } from '../model/pictureMark'
import { newRecord } from '../model/record'
import { PLAIN_TEXT } from '../model/textStyle'
import type { TitleCard } from '../model/words'
import { timeMapOf } from '../time/timeMap'
import { compose } from './compose'
import { footageOf, type Step } from './composition'

const SECOND = 1_000_000
/** What lies over the footage of the sample edit, which is ten seconds long, at `seconds`. */
function onTop(
  seconds: number,
  marks: PictureMark[],
  change: (edit: ReturnType<typeof sampleEdit>) => void = () => {},
): Step[] {
  const edit = sampleEdit()
  edit.imageFiles = [
    {
      ...newRecord('2026-11-25T10:00:00.000Z'),
      id: 'badge' as ImageFileId,
      name: 'badge',
      fileName: 'badge.gif',
      sizeBytes: 1,
      width: 300,
      height: 200,
    },
  ]
  edit.highlight.marks = marks
  change(edit)
  const [shape] = edit.highlight.shapes
  if (!shape) throw new Error('the sample edit has a shape')
  const composition = compose(edit, timeMapOf(edit.highlight), shape, seconds * SECOND)
  return composition?.steps.slice(composition.steps.indexOf(footageOf(composition).at(-1) as Step) + 1) ?? []
}
const mark = <K extends Exclude<PictureMark['kind'], 'picture'>>(kind: K, change: Partial<MarkOf<K>> = {}) =>
  ({ ...newMark(kind as string as MarkId, { kind }), ...change }) as MarkOf<K>
const withTitles =
  (...titles: TitleCard[]) =>
  (edit: ReturnType<typeof sampleEdit>) =>
    void (edit.highlight.words = { ...edit.highlight.words, titles })
const textOf = (steps: Step[]) => steps.flatMap((s) => (s.kind === 'text' ? [s.text] : []))

it('nothing is on a picture that nobody put there', () => {
  expect(onTop(3, [])).toEqual([])
})

it('marks are on from their start up to, not including, their end', () => {
  const handle = mark('handle', { text: 'heron ridge', fromMicros: 2 * SECOND, toMicros: 4 * SECOND })
  expect([1.99, 2, 3.99, 4].map((t) => textOf(onTop(t, [handle])).length)).toEqual([0, 1, 1, 0])
  expect(textOf(onTop(9.9, [mark('handle', { text: 'heron ridge' })]))).toEqual(['heron ridge'])
})

it('a progress bar is as long as what is over, along each edge', () => {
  const done = (edge: MarkOf<'progress'>['edge']) => onTop(2.5, [mark('progress', { edge, thickness: 0.01 })]).at(-1)
  expect(done('bottom')).toMatchObject({ kind: 'block', rect: { x: 0, y: 1920 - 11, width: 270, height: 11 } })
  expect(done('top')).toMatchObject({ rect: { y: 0, width: 270 } })
  expect(done('left')).toMatchObject({ rect: { x: 0, y: 1440, height: 480, width: 11 } })
})

it('a countdown counts the seconds that are left of its time as people do', () => {
  const at = (t: number) => textOf(onTop(t, [mark('countdown', { toMicros: 5 * SECOND })]))[0]
  expect([0, 2, 2.01, 4, 4.99].map(at)).toEqual(['5', '3', '3', '1', '1'])
  expect(at(5)).toBeUndefined()
})

it('a picture that moves begins with its own time; one behind everything is drawn with the output clock', () => {
  const picture = {
    ...newMark('p' as MarkId, { kind: 'picture', imageFileId: 'badge' as ImageFileId }),
    fromMicros: 2 * SECOND,
  } as PictureMark
  expect(onTop(3.5, [picture])).toMatchObject([
    { kind: 'image', imageFileId: 'badge', micros: 1.5 * SECOND, opacity: 1 },
  ])
})

it('an end card covers words and marks for its last seconds, and a level figure is drawn for its moment', () => {
  const marks = [mark('endCard', { text: 'More on Friday', lengthMicros: 2 * SECOND }), mark('level')]
  const titled = withTitles({
    id: 't' as TitleId,
    text: 'Last gate',
    fromMicros: null,
    toMicros: null,
    style: PLAIN_TEXT,
  })
  expect(onTop(7.9, marks, titled).map((s) => s.kind)).toEqual(['level', 'text'])
  const last = onTop(8, marks, titled)
  expect(last.map((s) => s.kind)).toEqual(['level', 'text', 'block', 'text'])
  expect(last[0]).toMatchObject({ micros: 8 * SECOND })
  expect(last[2]).toMatchObject({ rect: { x: 0, y: 0, width: 1080, height: 1920 }, opacity: 1 })
  expect(textOf(last)).toEqual(['Last gate', 'More on Friday'])
})

it('titles that are on at once share their area; each has its own time', () => {
  const two = withTitles(
    { id: 'a' as TitleId, text: 'First', fromMicros: null, toMicros: 3 * SECOND, style: PLAIN_TEXT },
    { id: 'b' as TitleId, text: 'Second', fromMicros: 2 * SECOND, toMicros: null, style: PLAIN_TEXT },
  )
  const texts = (t: number) => onTop(t, [], two).flatMap((s) => (s.kind === 'text' ? [s] : []))
  expect([1, 2.5, 4].map((t) => texts(t).map((s) => s.text))).toEqual([['First'], ['First', 'Second'], ['Second']])
  const [upper, lower] = texts(2.5)
  expect((upper?.area.y ?? 0) + (upper?.area.height ?? 0)).toBeLessThanOrEqual(lower?.area.y ?? 0)
})
