import { describe, expect, it } from 'vitest'
import { tryRemedy } from '@/edit/remedies'
import { z } from 'zod'
import { sampleEdit } from '../../../tests/support/edits'
import { FromSchema, type JsonSchema } from '../../../tests/support/fromSchema'
import { SEED, seeded } from '../../../tests/support/seeded'
import { compose } from '../compose/compose'
import { findingsOf, NOTHING_MEASURED } from '../findings/findings'
import { edit as editSchema, type Edit } from '../model/edit'
import { startingOutlets } from '../model/outlet'
import { soundPlan } from '../sound/soundPlan'
import { timeMapOf } from '../time/timeMap'
import { readBundle, writeBundle } from './bundle'
import { readCaptions } from './captionFile'
import { readCsvMarks } from './csvMarks'
import { writeEditList } from './editList'
import { readEdlMarks } from './edlMarks'
import { ffmpegScript } from './ffmpeg/ffmpegScript'
import { readOtio } from './otio/readOtio'
import { writeOtio } from './otio/writeOtio'
import { readRackFile } from './rackFile'
import { readEdit } from './readEdit'
import { readVttMarks } from './vttMarks'

const RATE = { num: 30, den: 1 }
const SCHEMA = z.toJSONSchema(editSchema, { io: 'input' }) as JsonSchema
const [outlet = null] = startingOutlets('2026-11-25T10:00:00.000Z')

/** A random edit as it could stand in a file, with a record for every id that something may refer to. */
function anyEdit(seed: number): unknown {
  const from = new FromSchema(SCHEMA, seeded(seed))
  const records = (field: string) =>
    ['a', 'b', 'c'].map((id) => ({ ...(from.make(SCHEMA.properties?.[field]?.items) as object), id }))
  return inOrder({
    ...(from.make() as object),
    setups: records('setups'),
    layouts: records('layouts'),
    recordings: records('recordings'),
  })
}

/**
 * Puts right what a schema of single values cannot say: no two in a list have one id, ends come after starts, and
 * rectangles lie inside the frame.
 */
function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) {
    const ids = new Set<unknown>()
    return value
      .map(inOrder)
      .filter((of) => !of || typeof of !== 'object' || !('id' in of) || (!ids.has(of.id) && ids.add(of.id)))
  }
  if (!value || typeof value !== 'object') return value
  const made = Object.fromEntries(Object.entries(value).map(([key, of]) => [key, inOrder(of)])) as Record<
    string,
    number
  >
  for (const [from, to] of [
    ['inMicros', 'outMicros'],
    ['fromMicros', 'toMicros'],
  ] as const) {
    const [a, b] = [made[from], made[to]]
    if (typeof a === 'number' && typeof b === 'number' && b <= a)
      Object.assign(made, { [from]: Math.min(a, 60_000_000), [to]: Math.min(a, 60_000_000) + 1_500_000 })
  }
  for (const [at, size] of [
    ['x', 'width'],
    ['y', 'height'],
  ] as const) {
    const [a, b] = [made[at], made[size]]
    if (typeof a === 'number' && typeof b === 'number' && a + b > 1) made[at] = Math.max(0, 1 - b)
  }
  return made
}

function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value]
  return value && typeof value === 'object' ? Object.values(value).flatMap(numbersIn) : []
}

const areFinite = (value: unknown) => numbersIn(value).every(Number.isFinite)

describe('whatever an edit says that is accepted from a file', () => {
  const edits = Array.from({ length: 60 }, (_, n) => SEED + n).flatMap((seed): { seed: number; edit: Edit }[] => {
    const read = readEdit(anyEdit(seed))
    if (read.ok) return [{ seed, edit: read.edit }]
    // Chance strikes out all of a passage now and then.
    for (const problem of read.problems) expect(problem, `seed ${seed}`).toContain('all of it is struck out')
    return []
  })

  it(`most of what chance makes is accepted (seed ${SEED})`, () => {
    expect(edits.length).toBeGreaterThan(30)
  })

  it(`it can be composed at any time in any shape, in finite numbers (seed ${SEED})`, () => {
    for (const { seed, edit } of edits) {
      const map = timeMapOf(edit.highlight)
      for (const shape of edit.highlight.shapes)
        for (const part of [0, 0.1, 0.5, 0.999]) {
          const composition = compose(edit, map, shape, Math.floor(map.lengthMicros * part))
          expect(composition?.size, `seed ${seed}`).toEqual({ width: shape.width, height: shape.height })
          expect(areFinite(composition), `seed ${seed}`).toBe(true)
        }
      expect(
        compose(edit, map, edit.highlight.shapes[0] as Edit['highlight']['shapes'][number], map.lengthMicros),
        `seed ${seed}, after its end`,
      ).toBeNull()
    }
  })

  it(`it can be looked over and heard (seed ${SEED})`, () => {
    for (const { seed, edit } of edits) {
      const found = findingsOf(
        edit,
        { ...NOTHING_MEASURED, outlet, measure: (text, { size }) => text.length * size * 0.5 },
        tryRemedy,
      )
      expect(areFinite(found), `seed ${seed}`).toBe(true)
      expect(new Set(found.map((f) => f.key)).size, `seed ${seed}`).toBe(found.length)
      expect(areFinite(soundPlan(edit, timeMapOf(edit.highlight))), `seed ${seed}`).toBe(true)
    }
  })

  it(`it can be written in every form, and comes back out of those that hold all of it (seed ${SEED})`, () => {
    for (const { seed, edit } of edits) {
      expect(readBundle(writeBundle([edit], new Map())), `seed ${seed}`).toMatchObject({ ok: true, edits: [edit] })
      expect(writeEditList(edit), `seed ${seed}`).not.toMatch(/NaN|undefined|Infinity/)
      for (const shape of edit.highlight.shapes) {
        const read = readOtio(writeOtio(edit, shape))
        if (read.ok && read.edit) expect(read.edit, `seed ${seed}`).toEqual(edit)
        expect(ffmpegScript(edit, shape, RATE), `seed ${seed}`).not.toMatch(/NaN|undefined|Infinity/)
      }
    }
  })
})

/**
 * What befalls a file on its way: cut short, a piece of it lost or there twice, letters changed, a value that is
 * another.
 */
function spoilt(text: string, random: ReturnType<typeof seeded>): string {
  const at = random.integer(0, text.length)
  const to = Math.min(text.length, at + random.integer(1, 60))
  const piece = text.slice(at, to)
  return random.pick([
    () => text.slice(0, at),
    () => text.slice(0, at) + text.slice(to),
    () => text.slice(0, to) + piece + text.slice(to),
    () => text.slice(0, at) + String.fromCharCode(random.integer(0, 0xffff)) + text.slice(at + 1),
    () =>
      text.replace(/-?\d+(\.\d+)?/, () => random.pick(['-1', '1e308', '"now"', 'null', '[]', '99999999999999999999'])),
    () =>
      text.slice(0, at) +
      text.slice(at).replace(/\d+/, () => random.pick(['-1', '0', '1e308', '{}', '000', '9'.repeat(30)])),
  ])()
}

describe('a file that was spoilt on its way', () => {
  const VTT =
    'WEBVTT\n\n00:00:01.000 --> 00:00:02.500\n<v Wren>Über den Grat &amp; weiter\n\n00:05.000 --> 00:06.000 align:start\nStay <00:05.500>low\n'
  const CSV = 'Label,In,Out\nLast gate,00:01:02.500,00:01:12\n"Two up, ""again""",90,95.5\n'
  const EDL =
    'TITLE: Ridge Cup\nFCM: NON-DROP FRAME\n\n001  AX       V     C        00:00:02:00 00:00:03:00 00:00:00:00 00:00:01:00\n* FROM CLIP NAME: ridge.mp4\n'
  const rack = JSON.stringify({
    brimble: 'rack',
    version: 1,
    setups: sampleEdit().setups,
    layouts: sampleEdit().layouts,
  })
  const forms: [string, string, (text: string) => unknown][] = [
    ['bundle', writeBundle([sampleEdit()], new Map()), readBundle],
    ['timeline', writeOtio(sampleEdit(), { id: 'tall', width: 1080, height: 1920 }), readOtio],
    ['rack', rack, readRackFile],
    ['marks as CSV', CSV, (text) => readCsvMarks(text, RATE, 600_000_000)],
    ['marks as a cut list', EDL, (text) => readEdlMarks(text, RATE, 600_000_000)],
    ['marks as WebVTT', VTT, (text) => readVttMarks(text, 600_000_000)],
    ['captions', VTT, (text) => readCaptions(new TextEncoder().encode(text))],
  ]

  it.each(forms)(
    `%s is read as far as it can be or refused, and nothing is thrown (seed ${SEED})`,
    async (_name, text, read) => {
      const random = seeded(SEED)
      const whole = JSON.stringify(await read(text))
      let others = 0
      for (let n = 0; n < 300; n++) {
        const read1 = await read(spoilt(text, random))
        expect(areFinite(read1)).toBe(true)
        if (JSON.stringify(read1) !== whole) others++
      }
      expect(others, 'something was spoilt').toBeGreaterThan(50)
    },
  )
})
