import type { Draft } from 'immer'
import type { Edit } from '@/core/model/edit'

/** What commands work on: something that is edited, an edit if not otherwise said, with its history and saving. */
export interface Host<T extends object = Edit> {
  readonly value: T
  /** Makes a step of the history; changes with the same `gesture` are one. */
  change(label: string, gesture: string, recipe: (draft: Draft<T>) => void): void
  /** Adds records that later steps refer to; undo leaves them. */
  extend(recipe: (draft: Draft<T>) => void): void
  /** Takes in what was found out and is nobody's doing. */
  learn(recipe: (draft: Draft<T>) => void): void
  /** Says why something was not done. */
  refuse(label: string, why: string): void
}

interface CommandParts<A, T extends object> {
  /** Its name in lists; no two commands share one. */
  id: string
  /** What the history shows. */
  label: string | ((args: A, value: T) => string)
  /** Why it cannot be done now, in a sentence without its end; null when it can. */
  refuse?: (value: T, args: A) => string | null
  /** Changes a draft. Pure but for new ids: what it needs besides the draft is in `args`. */
  apply: (draft: Draft<T>, args: A) => void
}

/**
 * Something that can be done. Called, it is done as a step of the history; false, with the reason told, when it
 * cannot be.
 */
export interface Command<A, T extends object = Edit> extends Pick<CommandParts<A, T>, 'id' | 'label' | 'apply'> {
  (host: Host<T>, args: A, gesture?: string): boolean
  /** Whether there is anything for which it cannot be done. */
  mayRefuse: boolean
  /** Why it cannot be done now; null when it can. */
  why: (value: T, args: A) => string | null
}

export function command<A, T extends object = Edit>(parts: CommandParts<A, T>): Command<A, T> {
  const { id, label, apply } = parts
  const why = (value: T, args: A) => parts.refuse?.(value, args) ?? null
  const run = (host: Host<T>, args: A, gesture: string = crypto.randomUUID()): boolean => {
    const called = typeof label === 'string' ? label : label(args, host.value)
    const refused = why(host.value, args)
    if (refused !== null) {
      host.refuse(called, refused)
      return false
    }
    host.change(called, gesture, (draft) => apply(draft, args))
    return true
  }
  return Object.assign(run, { id, label, apply, why, mayRefuse: parts.refuse !== undefined })
}
