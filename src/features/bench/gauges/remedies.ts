import { applyRemedy } from '@/core/findings/applyRemedy'
import { causeOf, isSafe, type Finding, type Remedy } from '@/core/findings/finding'
import { partly } from '@/core/findings/partly'
import type { Edit } from '@/core/model/edit'
import type { EditSession } from '../edits'

/** What can be done about findings. Each is one step of undo. */

/** A remedy is shown moving for this long, where people want to see things move. */
const MOVES_MS = 320

const staysStill = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** Does remedies as one step: what moves is seen to move there. Whatever else is done meanwhile, undo first of all, stops it. */
function take(session: EditSession, label: string, remedies: readonly Remedy[]): void {
  const gesture = crypto.randomUUID()
  const from = session.value
  const apply = (some: readonly Remedy[]) => session.change(label, gesture, (draft) => some.forEach((r) => applyRemedy(draft, r)))
  const moving = remedies.filter((r) => partly(from, r, 0))
  if (moving.length === 0 || staysStill()) return apply(remedies)
  apply(remedies.filter((r) => !moving.includes(r)))
  const started = performance.now()
  const move = (before: Edit) => {
    if (session.value !== before) return
    const share = Math.min(1, (performance.now() - started) / MOVES_MS)
    apply(moving.flatMap((r) => (share < 1 ? (partly(from, r, share * share * (3 - 2 * share)) ?? []) : r)))
    const { value } = session
    if (share < 1) requestAnimationFrame(() => move(value))
  }
  const { value } = session
  requestAnimationFrame(() => move(value))
}

export function putRight(session: EditSession, { remedy }: Finding): void {
  if (remedy) take(session, 'Put right', [remedy])
}

/** Puts right all that can be without leaving anything out, in one step; gives the findings that were. What cures several is done once. */
export function putAllRight(session: EditSession, findings: readonly Finding[]): Finding[] {
  const curable = findings.filter((f) => f.remedy && isSafe(f.remedy))
  const remedies = new Map(curable.flatMap(({ remedy }) => (remedy ? [[JSON.stringify(remedy), remedy]] : [])))
  if (remedies.size > 0) take(session, 'Put right what can be put right', [...remedies.values()])
  return curable
}

/** Says that a fault is meant so: it stays quiet until what causes it changes. */
export function accept(session: EditSession, finding: Finding): void {
  session.change('Meant so', crypto.randomUUID(), ({ highlight }) => {
    highlight.accepted = [...highlight.accepted.slice(-499), causeOf(finding)]
  })
}

/** Holds the peaks of the mix under a ceiling, dBTP, or (null) leaves them as they come. */
export function holdPeaks(session: EditSession, limitDb: number | null): void {
  session.change(limitDb === null ? 'Leave peaks as they come' : 'Hold peaks', crypto.randomUUID(), ({ highlight }) => {
    highlight.limitDb = limitDb
  })
}
