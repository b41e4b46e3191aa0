import { createStore } from 'zustand/vanilla'
import type { Edit } from '@/core/model/edit'
import type { EditSession } from '@/store/highlights'

/** While something is dragged, what only tells of the edit follows this often. */
const CALM_MS = 150

/**
 * The edit for what tells of it without being dragged itself. It is the edit, but while a pointer is held down it
 * follows a few times a second: a drag changes the edit sixty times, and lists of numbers need not be drawn anew with
 * each. Call `close` when done.
 */
export class CalmEdit {
  readonly store
  private readonly leave: () => void
  private held = false
  private timer: ReturnType<typeof setTimeout> | null = null

  /** `page`: where pointers are pressed and let go. */
  constructor(
    private readonly session: Pick<EditSession, 'value' | 'store'>,
    page: Pick<EventTarget, 'addEventListener' | 'removeEventListener'>,
  ) {
    this.store = createStore<{ edit: Edit }>(() => ({ edit: session.value }))
    const press = () => (this.held = true)
    const letGo = () => {
      this.held = false
      this.catchUp()
    }
    const heard = [
      ['pointerdown', press],
      ['pointerup', letGo],
      ['pointercancel', letGo],
    ] as const
    for (const [type, listener] of heard) page.addEventListener(type, listener, { capture: true })
    const unsubscribe = session.store.subscribe(() => {
      if (!this.held) this.catchUp()
      else this.timer ??= setTimeout(() => this.catchUp(), CALM_MS)
    })
    this.leave = () => {
      unsubscribe()
      for (const [type, listener] of heard) page.removeEventListener(type, listener, { capture: true })
    }
  }

  close(): void {
    this.leave()
    if (this.timer) clearTimeout(this.timer)
  }

  private catchUp(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    if (this.store.getState().edit !== this.session.value) this.store.setState({ edit: this.session.value })
  }
}
