import type { KeyboardEvent } from 'react'
import { expect, it, vi } from 'vitest'
import { heldKeys, type ArrowStep, type HeldActions } from './heldKeys'

/** Presses a key on an element, or on what is in it; whether it was kept from the screen. */
function press(actions: HeldActions, key: string, held: Partial<KeyboardEvent> = {}, inside = false): boolean {
  const element = {} as HTMLElement
  const preventDefault = vi.fn()
  const stopPropagation = vi.fn()
  const event = { key, target: inside ? {} : element, currentTarget: element, preventDefault, stopPropagation, ...held }
  heldKeys(actions)(event as unknown as KeyboardEvent<HTMLElement>)
  expect(stopPropagation).toHaveBeenCalledTimes(preventDefault.mock.calls.length)
  return preventDefault.mock.calls.length > 0
}

it('arrows lead one step, ten with Shift, and say whether Alt was held', () => {
  const steps: ArrowStep[] = []
  const actions = { arrow: (step: ArrowStep) => void steps.push(step) }
  expect(press(actions, 'ArrowLeft')).toBe(true)
  expect(press(actions, 'ArrowDown', { shiftKey: true, altKey: true })).toBe(true)
  expect(steps).toMatchObject([
    { dx: -1, dy: 0, times: 1 },
    { dx: 0, dy: 1, times: 10, alt: true },
  ])
})

it('an arrow that does nothing here, keys with Ctrl, keys inside, and all others are the screen’s', () => {
  const arrow = vi.fn(() => false)
  expect(press({ arrow }, 'ArrowUp')).toBe(false)
  const remove = vi.fn()
  expect(press({ remove }, 'Delete', { ctrlKey: true })).toBe(false)
  expect(press({ remove }, 'Delete', {}, true)).toBe(false)
  expect(press({ remove }, 'ArrowUp')).toBe(false)
  expect(press({ remove }, 'x')).toBe(false)
  expect(remove).not.toHaveBeenCalled()
})

it('zooms, opens and removes', () => {
  const [zoom, open, remove] = [vi.fn(), vi.fn(), vi.fn()]
  for (const key of ['+', '-', 'Enter', 'Delete', 'Backspace']) expect(press({ zoom, open, remove }, key)).toBe(true)
  expect(zoom.mock.calls.map(([direction]) => direction as number)).toEqual([1, -1])
  expect(open).toHaveBeenCalledOnce()
  expect(remove).toHaveBeenCalledTimes(2)
})
