import type { Finding, Remedy } from '@/core/findings/finding'
import { partly } from '@/core/findings/partly'
import type { Edit } from '@/core/model/edit'
import { doRemedies, safeRemedies } from '@/edit/remedies'
import type { EditSession } from '@/store/highlights'
import { wording } from './wording'

/** What can be done about findings. Each is one step of undo. */

/** A remedy is shown moving for this long, where people want to see things move. */
const MOVES_MS = 320

const staysStill = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** Brings what is still moving to where it ends, so that the next remedy finds it there. */
let finish: () => void = () => {}

/**
 * Does remedies as one step: what moves is seen to move there. Whatever else is done meanwhile, undo first of all,
 * stops it; another remedy ends it first.
 */
function take(session: EditSession, label: string, remedies: readonly Remedy[]): void {
  finish()
  const gesture = crypto.randomUUID()
  const from = session.value
  const apply = (some: readonly Remedy[]) => void doRemedies(session, { remedies: some, label }, gesture)
  const moving = remedies.filter((r) => partly(from, r, 0))
  if (moving.length === 0 || staysStill()) return apply(remedies)
  apply(remedies.filter((r) => !moving.includes(r)))
  const started = performance.now()
  let reached: Edit = session.value
  let done = false
  const moveTo = (share: number) => {
    if (done || session.value !== reached) return
    done = share === 1
    apply(moving.flatMap((r) => (done ? r : (partly(from, r, share * share * (3 - 2 * share)) ?? []))))
    reached = session.value
    if (!done) requestAnimationFrame(() => moveTo(Math.min(1, (performance.now() - started) / MOVES_MS)))
  }
  finish = () => moveTo(1)
  requestAnimationFrame(() => moveTo(Math.min(1, (performance.now() - started) / MOVES_MS)))
}

export function putRight(session: EditSession, { remedy }: Finding): void {
  if (remedy) take(session, wording.putRight, [remedy])
}

/** Puts right all that can be without leaving anything out, in one step; gives the findings that were. */
export function putAllRight(session: EditSession, findings: readonly Finding[]): Finding[] {
  const { remedies, cured } = safeRemedies(findings)
  if (remedies.length > 0) take(session, wording.fixAll, remedies)
  return cured
}
