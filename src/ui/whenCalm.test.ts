import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { whenCalm } from './whenCalm'

/** What the browser tells of long tasks. */
let tellOfLongTask: () => void = () => {}

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal(
    'PerformanceObserver',
    class {
      constructor(onEntries: () => void) {
        tellOfLongTask = onEntries
      }
      observe() {}
      disconnect() {
        tellOfLongTask = () => {}
      }
    },
  )
})
afterEach(() => void vi.useRealTimers())

it('a page is calm when it had no long task for half a second, and once', () => {
  const onCalm = vi.fn()
  whenCalm(onCalm)
  vi.advanceTimersByTime(400)
  tellOfLongTask()
  vi.advanceTimersByTime(400)
  expect(onCalm).not.toHaveBeenCalled()
  vi.advanceTimersByTime(100)
  expect(onCalm).toHaveBeenCalledTimes(1)
  vi.advanceTimersByTime(10_000)
  expect(onCalm).toHaveBeenCalledTimes(1)
})

it('a page that never rests is taken for calm after five seconds; one that is left, never', () => {
  const busy = vi.fn()
  whenCalm(busy)
  for (let n = 0; n < 60; n++) {
    tellOfLongTask()
    vi.advanceTimersByTime(100)
  }
  expect(busy).toHaveBeenCalledTimes(1)
  const left = vi.fn()
  whenCalm(left)()
  vi.advanceTimersByTime(10_000)
  expect(left).not.toHaveBeenCalled()
})
