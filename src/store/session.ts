import type { Draft } from 'immer'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { isStorageFull } from './database'
import { withRoom } from './withRoom'
import { change, extend, redo, undo, type Undoable, type UndoStep } from './undo'
import { note } from '@/diagnostics/note'

/** *conflict*: another tab has written the same record; nothing is written over it. */
export type SaveState = 'saved' | 'saving' | 'no-room' | 'failed' | 'conflict'

/**
 * A change that was not made: it would have come to more of something (`limit`) than can be stored, or its command
 * says why not.
 */
export type Refusal = { label: string } & ({ limit: string } | { why: string })

export interface SessionState<T> {
  history: Undoable<T>
  saving: SaveState
  /** The last one; another object for each. */
  refusal: Refusal | null
}

/**
 * Writes a value with its history. *conflict* when what is stored is no longer what this session read or wrote last.
 */
export type Save<T> = (value: T, steps: readonly UndoStep[], position: number) => Promise<'written' | 'conflict'>

/** What is done in one go is written at once; a drag, and a run of keys, this often while it lasts. */
const SAVE_EVERY_MS = 250
/** After a failed write it is tried again; nothing is dropped meanwhile. */
const RETRY_AFTER_MS = 3000

/** Something being worked on: its value, its history, and its saving. Every change is saved without being asked for. */
export class Session<T extends object> {
  readonly store: StoreApi<SessionState<T>>
  private timer: ReturnType<typeof setTimeout> | null = null
  private writing: Promise<void> | null = null
  private written: Undoable<T>

  /** `overfull`: what a value holds too much of, if anything; such a value is never come to. */
  constructor(
    value: T,
    steps: readonly UndoStep[],
    position: number,
    private readonly save: Save<T>,
    private readonly overfull: (value: T) => string | null = () => null,
  ) {
    const history = { value, steps, position }
    this.written = history
    this.store = createStore<SessionState<T>>(() => ({ history, saving: 'saved', refusal: null }))
  }

  get value(): T {
    return this.store.getState().history.value
  }

  /**
   * Changes the value. `label` is shown with undo; changes with the same `gesture` (a drag, a run of key presses) are
   * one step. What would come to too much of something is not done, and told of as `refusal`.
   */
  change(label: string, gesture: string, recipe: (draft: Draft<T>) => void): void {
    const before = this.store.getState().history
    const changed = change(before, label, gesture, recipe)
    const goesOn = changed.position === before.position && before.steps[before.position - 1]?.gesture === gesture
    const limit = this.overfull(changed.value)
    if (limit === null) this.set(changed, goesOn ? SAVE_EVERY_MS : 0)
    else this.store.setState({ refusal: { label, limit } })
  }

  /** Adds records that changes to come refer to; not a step of its own, and undo leaves it. */
  extend(recipe: (draft: Draft<T>) => void): void {
    this.set(extend(this.store.getState().history, recipe))
  }

  /**
   * Takes in what was found out and is nobody's doing: no step of the history, and nothing to be written by itself.
   */
  learn(recipe: (draft: Draft<T>) => void): void {
    const { history } = this.store.getState()
    const learnt = extend(history, recipe)
    if (this.written === history) this.written = learnt
    this.store.setState({ history: learnt })
  }

  /** Says why something is not done. */
  refuse(label: string, why: string): void {
    this.store.setState({ refusal: { label, why } })
  }

  undo(): void {
    this.set(undo(this.store.getState().history))
  }

  redo(): void {
    this.set(redo(this.store.getState().history))
  }

  /** Whether something has been done that is not written yet. */
  get isUnwritten(): boolean {
    return this.store.getState().history !== this.written
  }

  /**
   * Writes what has not been written yet. Resolves when it is, or has failed; what is done meanwhile as part of a
   * drag waits for its turn.
   */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    while (this.isUnwritten && this.store.getState().saving !== 'conflict') {
      this.writing ??= this.write()
      await this.writing
      if (this.store.getState().saving !== 'saving' || this.timer) break
    }
  }

  /** `saveInMs`: how long it may wait to be written. */
  private set(history: Undoable<T>, saveInMs = 0): void {
    const before = this.store.getState()
    if (history === before.history) return
    if (before.saving === 'conflict') return this.store.setState({ history })
    const isFailing = before.saving === 'no-room' || before.saving === 'failed'
    this.store.setState({ history, ...(!isFailing && { saving: 'saving' }) })
    if (saveInMs === 0 && !isFailing) void this.flush()
    else this.timer ??= setTimeout(() => void this.flush(), saveInMs)
  }

  private async write(): Promise<void> {
    const { history } = this.store.getState()
    this.store.setState({ saving: 'saving' })
    try {
      const save = () => this.save(history.value, history.steps, history.position)
      if ((await withRoom(save)) === 'conflict') return this.store.setState({ saving: 'conflict' })
      this.written = history
      if (this.store.getState().history === history) this.store.setState({ saving: 'saved' })
    } catch (error) {
      note('saving', error)
      this.store.setState({ saving: isStorageFull(error) ? 'no-room' : 'failed' })
      this.timer ??= setTimeout(() => void this.flush(), RETRY_AFTER_MS)
    } finally {
      this.writing = null
    }
  }
}
