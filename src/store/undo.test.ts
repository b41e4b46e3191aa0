import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../tests/support/seeded'
import { sampleEdit } from '../../tests/support/edits'
import type { Edit } from '@/core/model/edit'
import { change, redo, undo, type Undoable } from './undo'

const start = (): Undoable<Edit> => ({ value: sampleEdit(), steps: [], position: 0 })
const moveIn = (from: Undoable<Edit>, inMicros: number, gesture: string) =>
  change(from, 'Set in point', gesture, (draft) => {
    const [passage] = draft.highlight.passages
    if (passage) passage.inMicros = inMicros
  })
const inOf = (u: Undoable<Edit>) => u.value.highlight.passages[0]?.inMicros

describe('undo', () => {
  it('takes a whole drag back in one step, and gives it again', () => {
    let history = start()
    for (let t = 1; t <= 300; t++) history = moveIn(history, t * 1000, 'drag')
    history = moveIn(history, 5_000_000, 'another')
    expect(history.steps).toHaveLength(2)
    expect(history.steps[0]?.forward, 'a long drag is kept small').toHaveLength(1)
    history = undo(history)
    expect(inOf(history)).toBe(300_000)
    history = undo(history)
    expect(history.value).toEqual(sampleEdit())
    expect(undo(history)).toBe(history)
    expect(inOf(redo(redo(history)))).toBe(5_000_000)
  })

  it('forgets what was undone once something else is done, and ignores changes that change nothing', () => {
    let history = moveIn(moveIn(start(), 1000, 'a'), 2000, 'b')
    history = moveIn(undo(history), 3000, 'c')
    expect(history.steps.map((s) => s.gesture)).toEqual(['a', 'c'])
    expect(redo(history)).toBe(history)
    expect(moveIn(history, 3000, 'd')).toBe(history)
  })

  it(`comes back to the first state and to the last through any edits, also after being stored (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let round = 0; round < 30; round++) {
      let history = start()
      for (let i = 0; i < 40; i++)
        history = change(history, 'x', String(random.integer(0, 25)), (draft) => {
          const [setup] = draft.setups
          const [passage] = draft.highlight.passages
          if (!setup || !passage) return
          const kind = random.integer(0, 3)
          if (kind === 0) passage.inMicros = random.integer(0, 1000)
          else if (kind === 1)
            setup.regions.push({ ...structuredClone(sampleEdit().setups[0]?.regions[0])!, id: `r${i}` as never })
          else if (kind === 2) setup.regions.splice(0, 1)
          else passage.corrections = [{ panelId: 'top' as never, dx: random.next(), dy: 0, zoom: 1, shapeId: null }]
        })
      const last = history.value
      let back = structuredClone(history) as Undoable<Edit>
      while (back.position > 0) back = undo(back)
      expect(back.value).toEqual(sampleEdit())
      while (back.position < back.steps.length) back = redo(back)
      expect(back.value).toEqual(last)
    }
  })
})
