import { applyRemedy } from '@/core/findings/applyRemedy'
import { causeOf, isSafe, type Finding } from '@/core/findings/finding'
import type { EditSession } from '../edits'

/** What can be done about findings. Each is one step of undo. */

export function putRight(session: EditSession, { remedy }: Finding): void {
  if (remedy) session.change('Put right', crypto.randomUUID(), (draft) => applyRemedy(draft, remedy))
}

/** Puts right all that can be without leaving anything out, in one step; gives the findings that were. What cures several is done once. */
export function putAllRight(session: EditSession, findings: readonly Finding[]): Finding[] {
  const curable = findings.filter((f) => f.remedy && isSafe(f.remedy))
  const remedies = [...new Map(curable.map((f) => [JSON.stringify(f.remedy), f.remedy])).values()]
  if (remedies.length > 0) session.change('Put right what can be put right', crypto.randomUUID(), (draft) => remedies.forEach((r) => r && applyRemedy(draft, r)))
  return curable
}

/** Says that a fault is meant so: it stays quiet until what causes it changes. */
export function accept(session: EditSession, finding: Finding): void {
  session.change('Meant so', crypto.randomUUID(), ({ highlight }) => {
    highlight.accepted = [...highlight.accepted.slice(-499), causeOf(finding)]
  })
}
