import { bandsArrangement, lastArrangement, leapfrog, remedyOf, shortShots, withOwnPicture, type Leapfrog, type ShortShot } from '@/core/cut/leapfrog'
import { causeOf } from '@/core/findings/finding'
import { handleFindings } from '@/core/findings/layoutFindings'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { LayoutId, PassageId } from '@/core/model/ids'
import { newLayout } from '@/core/model/layout'
import { newRecord } from '@/core/model/record'
import { timeMapOf } from '@/core/time/timeMap'
import type { EditSession } from '../edits'

/** So many answers a highlight keeps. */
const MAX_ACCEPTED = 500

/** Lays a highlight's passages out in bands that take turns, as one step. */
export function applyLeapfrog(session: EditSession, how: Leapfrog): void {
  const base = newRecord(new Date().toISOString())
  const arrangements = [...Array.from({ length: how.bands }, (_, n) => bandsArrangement(how, n + 1)), lastArrangement(how)]
  const layouts = arrangements.map((arrangement, n) => newLayout({ ...base, id: crypto.randomUUID() as LayoutId, name: n < how.bands ? `Leapfrog, ${n + 1} of ${how.bands} bands` : 'Leapfrog, last shot', ownedBy: session.value.highlight.id, arrangement }))
  session.extend((draft) => void draft.layouts.push(...layouts))
  session.change('Leapfrog', crypto.randomUUID(), (draft) => {
    const { highlight } = draft
    highlight.joinTiming = 'hold'
    highlight.passages = leapfrog(highlight.passages, how, layouts.map((l) => l.id))
    // Which shots are short has been told and answered before: it is not told of again, join by join.
    const answered = handleFindings(draft, timeMapOf(highlight)).map(causeOf)
    highlight.accepted = [...new Set([...highlight.accepted, ...answered])].slice(-MAX_ACCEPTED)
  })
}

/** The shots of a highlight that would be too short for a leapfrog. */
export function shortShotsOf(edit: Edit, how: Leapfrog): ShortShot[] {
  return shortShots(edit.highlight.passages, how, (p) => recordingOf(edit, p.recordingId))
}

/** Shows a shot's picture alone slower, or from earlier on; cut points and sound stay as they are. */
export function setOwnPicture(session: EditSession, id: PassageId, change: Parameters<typeof withOwnPicture>[1]): void {
  const label = 'slipMicros' in change ? 'Show earlier' : `Picture at ${change.speedPercent} %`
  session.change(label, crypto.randomUUID(), ({ highlight }) => {
    highlight.passages = highlight.passages.map((p) => (p.id === id ? withOwnPicture(p, change) : p))
  })
}

/** Puts every short shot right that can be, as one step. */
export function mendShortShots(session: EditSession, how: Leapfrog): void {
  const changes = new Map(shortShotsOf(session.value, how).map((shot) => [shot.passageId, remedyOf(shot)]))
  session.change('Put short shots right', crypto.randomUUID(), ({ highlight }) => {
    highlight.passages = highlight.passages.map((p) => {
      const change = changes.get(p.id)
      return change ? withOwnPicture(p, change) : p
    })
  })
}
