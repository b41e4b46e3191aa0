import { expect, it } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import { SEED, seeded } from '../../tests/support/seeded'
import { compose } from '@/core/compose/compose'
import { readEdit } from '@/core/interchange/readEdit'
import { arrangeFor, STARTING_LAYOUTS } from '@/core/layout/startingLayouts'
import type { Edit } from '@/core/model/edit'
import { newId, type InsetId, type PanelId } from '@/core/model/ids'
import { MOST, overfull } from '@/core/model/overfull'
import { timeMapOf } from '@/core/time/timeMap'
import { Session, type Refusal } from '@/store/session'
import { COMMANDS } from './commands'
import { applyLayout, applyLeapfrog } from './layouts'
import { SETUP, LEAPFROG, ADDING, argumentsFor } from '../../tests/support/commandArguments'

type Random = ReturnType<typeof seeded>

/**
 * One thing that a person can do, with what chance puts into it. `adding`: how often it is something that makes more.
 */
function work(session: Session<Edit>, random: Random, adding: number): void {
  const made = argumentsFor(session.value, random)
  const all = random.next() < adding ? ADDING : [...COMMANDS.keys(), 'layout', 'bands']
  const id = random.pick(all)
  const { highlight, setups } = session.value
  if (id === 'layout') {
    const chosen = random.pick(STARTING_LAYOUTS)
    const arrangement = arrangeFor(
      chosen,
      (setups.find((s) => s.id === SETUP)?.regions ?? []).map((r) => r.role),
      () => newId<PanelId>(),
      () => newId<InsetId>(),
    )
    applyLayout(
      session,
      random.pick(highlight.passages).id,
      { name: chosen.name, arrangement, perShape: {}, basedOn: null, adapts: random.next() < 0.5 },
      random.next() < 0.5,
    )
  } else if (id === 'bands') {
    if (highlight.passages.length > 2) applyLeapfrog(session, { ...LEAPFROG, bands: random.pick([2, 3] as const) })
  } else {
    const args = made[id]?.()
    if (args !== null && args !== undefined)
      COMMANDS.get(id)?.(session, args as never, random.pick(['one', 'other', newId<string>()]))
  }
}

it('every command is in what is tried by chance', () => {
  expect(Object.keys(argumentsFor(sampleEdit(), seeded(SEED))).sort()).toEqual([...COMMANDS.keys()].sort())
  expect(ADDING.every((id) => COMMANDS.has(id))).toBe(true)
})

const numbersIn = (value: unknown): number[] => {
  if (typeof value === 'number') return [value]
  return value && typeof value === 'object' ? Object.values(value).flatMap(numbersIn) : []
}

/**
 * Does so many things from the sample on, looks at the edit after each, and takes them all back and does them again.
 */
function workOn(seed: number, things: number, adding: number, onRefusal: (refusal: Refusal) => void = () => {}): void {
  const random = seeded(seed)
  const session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const), overfull)
  session.store.subscribe(({ refusal }, before) => void (refusal && refusal !== before.refusal && onRefusal(refusal)))
  const history = () => session.store.getState().history
  const begin = structuredClone(session.value)
  for (let n = 0; n < things; n++) {
    work(session, random, adding)
    const where = `seed ${seed}, after ${n + 1} things, “${history().steps.at(-1)?.label ?? ''}”`
    const read = readEdit(JSON.parse(JSON.stringify(session.value)))
    expect(read.ok ? [] : read.problems, where).toEqual([])
    if (read.ok) expect(read.edit, where).toEqual(session.value)
    const map = timeMapOf(session.value.highlight)
    expect(
      numbersIn(
        compose(
          session.value,
          map,
          random.pick(session.value.highlight.shapes),
          random.integer(0, map.lengthMicros - 1),
        ),
      ).every(Number.isFinite),
      where,
    ).toBe(true)
  }
  const end = structuredClone(session.value)
  const done = history().position
  while (history().position > 0) session.undo()
  // What steps refer to stays.
  expect(
    { ...session.value, layouts: session.value.layouts.filter((l) => begin.layouts.some((b) => b.id === l.id)) },
    `seed ${seed}, all taken back`,
  ).toEqual(begin)
  while (history().position < done) session.redo()
  expect(session.value, `seed ${seed}, all done again`).toEqual(end)
}

it.each([0, 1, 2, 3, 4, 5].map((n) => SEED + n))(
  'whatever is done in whatever order can be stored, read again, composed, and undone and redone to the letter (seed %i)',
  (seed) => {
    workOn(seed, 120, 0.25)
  },
)

it.each([SEED, SEED + 1])(
  'nothing comes to more than can be stored, and what would is refused with its reason (seed %i)',
  (seed) => {
    const refused: Refusal[] = []
    workOn(seed, 260, 0.95, (refusal) => refused.push(refusal))
    expect(refused.every(({ label }) => label !== '')).toBe(true)
    const limits = refused.flatMap((refusal) => ('limit' in refusal ? [refusal.limit] : []))
    expect(limits.length).toBeGreaterThan(0)
    for (const limit of limits) expect(Object.keys(MOST)).toContain(limit)
  },
)
