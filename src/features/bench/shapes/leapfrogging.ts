import { bandsArrangement, lastArrangement, leapfrog, slowedInPlace, type Leapfrog } from '@/core/cut/leapfrog'
import { passageOf } from '@/core/model/edit'
import type { LayoutId, PassageId } from '@/core/model/ids'
import { newLayout } from '@/core/model/layout'
import { newRecord } from '@/core/model/record'
import type { EditSession } from '../edits'

/** Lays a highlight's passages out in bands that take turns, as one step. */
export function applyLeapfrog(session: EditSession, how: Leapfrog): void {
  const base = newRecord(new Date().toISOString())
  const arrangements = [...Array.from({ length: how.bands }, (_, n) => bandsArrangement(how, n + 1)), lastArrangement(how)]
  const layouts = arrangements.map((arrangement, n) => newLayout({ ...base, id: crypto.randomUUID() as LayoutId, name: n < how.bands ? `Leapfrog, ${n + 1} of ${how.bands} bands` : 'Leapfrog, last shot', ownedBy: session.value.highlight.id, arrangement }))
  session.extend((draft) => void draft.layouts.push(...layouts))
  session.change('Leapfrog', crypto.randomUUID(), ({ highlight }) => {
    highlight.joinTiming = 'hold'
    highlight.passages = leapfrog(highlight.passages, how, layouts.map((l) => l.id))
  })
}

/** Slows a passage down without moving its cuts in the output. */
export function slowInPlace(session: EditSession, id: PassageId, percent: number): void {
  session.change(`Speed ${percent} %`, crypto.randomUUID(), (draft) => void Object.assign(passageOf(draft, id), slowedInPlace(passageOf(draft, id), percent)))
}
