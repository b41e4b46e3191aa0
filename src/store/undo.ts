import { applyPatches, enablePatches, produce, produceWithPatches, type Draft, type Patch } from 'immer'

enablePatches()

/** One thing a person did, as differences in both directions. Changes with the same `gesture` are one step. */
export interface UndoStep {
  label: string
  gesture: string
  forward: Patch[]
  inverse: Patch[]
}

/** More steps than a sitting takes; older ones are dropped. */
const MAX_STEPS = 300

/** A value with its history. Pure: every function returns a new one. */
export interface Undoable<T> {
  value: T
  steps: readonly UndoStep[]
  position: number
}

/** Applies `recipe`; a change with the same gesture as the step before joins it. Changing nothing adds nothing. */
export function change<T extends object>(
  from: Undoable<T>,
  label: string,
  gesture: string,
  recipe: (draft: Draft<T>) => void,
): Undoable<T> {
  const [value, forward, inverse] = produceWithPatches(from.value, recipe)
  if (forward.length === 0) return from
  const done = from.steps.slice(0, from.position)
  const last = done.at(-1)
  const steps =
    last?.gesture === gesture
      ? [...done.slice(0, -1), join(last, forward, inverse)]
      : [...done, { label, gesture, forward, inverse }]
  const kept = steps.slice(-MAX_STEPS)
  return { value, steps: kept, position: kept.length }
}

/**
 * Adds to a value what its history need not know: records that later steps refer to, put at the ends of lists. Undo
 * leaves it there.
 */
export function extend<T extends object>(from: Undoable<T>, recipe: (draft: Draft<T>) => void): Undoable<T> {
  return { ...from, value: produce(from.value, recipe) }
}

export function undo<T extends object>(from: Undoable<T>): Undoable<T> {
  const step = from.steps[from.position - 1]
  if (!step) return from
  return { ...from, value: applyPatches(from.value, step.inverse), position: from.position - 1 }
}

export function redo<T extends object>(from: Undoable<T>): Undoable<T> {
  const step = from.steps[from.position]
  if (!step) return from
  return { ...from, value: applyPatches(from.value, step.forward), position: from.position + 1 }
}

/**
 * A long drag replaces the same few values hundreds of times: only the first old and the last new one are worth
 * keeping.
 */
function join(step: UndoStep, forward: Patch[], inverse: Patch[]): UndoStep {
  return { ...step, forward: squash([...step.forward, ...forward]), inverse: squash([...inverse, ...step.inverse]) }
}

/** Keeps the last patch of each path: applied in order, the others would have been overwritten by it. */
function squash(patches: Patch[]): Patch[] {
  if (!patches.every((p) => p.op === 'replace')) return patches
  const byPath = new Map(patches.map((p) => [p.path.join('/'), p]))
  return overlapping([...byPath.keys()]) ? patches : [...byPath.values()]
}

function overlapping(paths: string[]): boolean {
  return paths.some((a) => paths.some((b) => a !== b && b.startsWith(`${a}/`)))
}
