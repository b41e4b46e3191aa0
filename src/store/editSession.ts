import type { Draft } from 'immer'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { Edit } from '@/core/model/edit'
import { isStorageFull } from './database'
import { saveEdit } from './highlights'
import { change, redo, undo, type Undoable, type UndoStep } from './undo'

export type SaveState = 'saved' | 'saving' | 'no-room' | 'failed'

export interface EditSessionState {
  history: Undoable<Edit>
  saving: SaveState
}

/** Changes are gathered for this long before they are written: a drag is a few writes, not hundreds. */
const SAVE_AFTER_MS = 250
/** After a failed write it is tried again; nothing is dropped meanwhile. */
const RETRY_AFTER_MS = 3000

/** One highlight being worked on: its edit, its history, and its saving. Every change is saved without being asked for. */
export class EditSession {
  readonly store: StoreApi<EditSessionState>
  private timer: ReturnType<typeof setTimeout> | null = null
  private writing: Promise<void> | null = null
  private written: Undoable<Edit>

  constructor(edit: Edit, steps: readonly UndoStep[], position: number, private readonly save = saveEdit) {
    const history = { value: edit, steps, position }
    this.written = history
    this.store = createStore<EditSessionState>(() => ({ history, saving: 'saved' }))
  }

  get edit(): Edit {
    return this.store.getState().history.value
  }

  /** Changes the edit. `label` is shown with undo; changes with the same `gesture` (a drag, a run of key presses) are one step. */
  change(label: string, gesture: string, recipe: (draft: Draft<Edit>) => void): void {
    this.set(change(this.store.getState().history, label, gesture, recipe))
  }

  undo(): void {
    this.set(undo(this.store.getState().history))
  }

  redo(): void {
    this.set(redo(this.store.getState().history))
  }

  /** Writes what has not been written yet. Resolves when it is, or has failed. */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    while (this.store.getState().history !== this.written) {
      this.writing ??= this.write()
      await this.writing
      if (this.store.getState().saving !== 'saving') break
    }
  }

  private set(history: Undoable<Edit>): void {
    if (history === this.store.getState().history) return
    this.store.setState({ history, saving: 'saving' })
    this.timer ??= setTimeout(() => void this.flush(), SAVE_AFTER_MS)
  }

  private async write(): Promise<void> {
    const { history } = this.store.getState()
    this.store.setState({ saving: 'saving' })
    try {
      await this.save(history.value, history.steps, history.position)
      this.written = history
      if (this.store.getState().history === history) this.store.setState({ saving: 'saved' })
    } catch (error) {
      this.store.setState({ saving: isStorageFull(error) ? 'no-room' : 'failed' })
      this.timer ??= setTimeout(() => void this.flush(), RETRY_AFTER_MS)
    } finally {
      this.writing = null
    }
  }
}
