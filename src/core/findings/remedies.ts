import type { Edit } from '../model/edit'
import type { LayoutId, PassageId } from '../model/ids'
import { isWorse, type Finding, type FindingDraft, type Remedy } from './finding'

/** Which part of a highlight a remedy touches; null stands for all. */
export interface Scope {
  passageId: PassageId | null
  layoutId: LayoutId | null
  shapeId: string | null
}

/** What an edit would be with a remedy; null where it cannot be had, a region being locked. */
export type TryRemedy = (edit: Edit, remedy: Remedy) => Edit | null

/**
 * So much looking over again in one go, in passages times shapes; findings beyond it wait for the earlier ones to be
 * put right.
 */
const MAX_LOOKED = 2000

/** Remedies that change nothing that can be seen again from the edit alone, or only what their own figure says. */
const TAKEN_AS_SAID: ReadonlySet<Remedy['kind']> = new Set(['gain', 'own-rate', 'smaller-file', 'limit-size', 'end-at'])

/**
 * Gives each finding the first of its remedies that is seen to work: tried on a copy, the fault is gone, or no longer
 * as bad, and nothing that must stop or warn has come instead. `lookAgain` finds what is wrong in a part of an edit;
 * `sizeOf` is how much looking that is.
 */
export function withRemedies(
  edit: Edit,
  found: readonly FindingDraft[],
  tryRemedy: TryRemedy,
  lookAgain: (edit: Edit, scope: Scope) => FindingDraft[],
  sizeOf: (scope: Scope) => number,
): Finding[] {
  let looked = 0
  const before = new Map(found.map((f) => [f.key, f]))
  const works = (of: FindingDraft, remedy: Remedy): boolean => {
    if (TAKEN_AS_SAID.has(remedy.kind)) return true
    const scope = scopeOf(of, remedy)
    looked += sizeOf(scope)
    if (looked > MAX_LOOKED) return false
    const tried = tryRemedy(edit, remedy)
    if (!tried) return false
    const after = lookAgain(tried, scope)
    const own = after.find((f) => f.key === of.key)
    if (own && !isWorse(of.severity, own.severity)) return false
    return after.every(
      (f) =>
        f.severity === 'note' || (before.has(f.key) && !isWorse(f.severity, before.get(f.key)?.severity ?? 'note')),
    )
  }
  return found.map(({ remedies, ...finding }) => ({
    ...finding,
    remedy: remedies.find((r) => works({ ...finding, remedies }, r)) ?? null,
  }))
}

function scopeOf({ shapeId }: FindingDraft, remedy: Remedy): Scope {
  switch (remedy.kind) {
    case 'move-crop':
      return { passageId: remedy.passageId, layoutId: null, shapeId: remedy.correction.shapeId }
    case 'move-inset':
    case 'lower-band':
    case 'swap-bands':
      return { passageId: null, layoutId: remedy.layoutId, shapeId: remedy.shapeId }
    case 'backdrop':
      return { passageId: null, layoutId: remedy.layoutId, shapeId }
    default:
      return { passageId: null, layoutId: null, shapeId: null }
  }
}
