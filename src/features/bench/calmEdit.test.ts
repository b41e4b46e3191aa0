import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createStore } from 'zustand/vanilla'
import type { Edit } from '@/core/model/edit'
import type { EditSession } from '@/store/highlights'
import { CalmEdit } from './calmEdit'

function opened() {
  const store = createStore(() => ({ n: 0 }))
  const session = {
    store,
    get value() {
      return store.getState()
    },
  } as unknown as Pick<EditSession, 'value' | 'store'>
  const page = new EventTarget()
  const calm = new CalmEdit(session, page)
  const n = () => (calm.store.getState().edit as Edit & { n: number }).n
  return { calm, page, n, set: (to: number) => store.setState({ n: to }) }
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('the calm edit', () => {
  it('is the edit while nothing is held down', () => {
    const { n, set } = opened()
    set(1)
    expect(n()).toBe(1)
  })

  it('follows a few times a second while something is dragged, and at once when it is let go', () => {
    const { page, n, set } = opened()
    let seen = 0
    page.dispatchEvent(new Event('pointerdown'))
    for (let i = 1; i <= 60; i++) {
      const before = n()
      set(i)
      vi.advanceTimersByTime(1000 / 60)
      if (n() !== before) seen++
    }
    expect(seen).toBeGreaterThanOrEqual(5)
    expect(seen).toBeLessThanOrEqual(7)
    set(100)
    page.dispatchEvent(new Event('pointerup'))
    expect(n()).toBe(100)
    set(101)
    expect(n()).toBe(101)
  })

  it('follows nothing once it is closed', () => {
    const { calm, page, n, set } = opened()
    page.dispatchEvent(new Event('pointerdown'))
    set(1)
    calm.close()
    vi.advanceTimersByTime(1000)
    page.dispatchEvent(new Event('pointerup'))
    set(2)
    expect(n()).toBe(0)
  })
})
