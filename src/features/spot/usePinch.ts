import { useEffect, useRef, type RefObject } from 'react'

export interface PinchMove {
  /** How much farther apart the two fingers are than at the last move. */
  factor: number
  /** Between the fingers, and how far that has moved, CSS px. */
  clientX: number
  dx: number
}

/** Two fingers on an element. */
export function usePinch(host: RefObject<HTMLElement | null>, onPinch: (move: PinchMove) => void): void {
  const latest = useRef(onPinch)
  latest.current = onPinch
  useEffect(() => {
    const element = host.current
    if (!element) return
    const fingers = new Map<number, number>()
    const measure = () => {
      const [a = 0, b = 0] = fingers.values()
      return { middle: (a + b) / 2, apart: Math.max(8, Math.abs(a - b)) }
    }
    const down = (event: PointerEvent) => event.pointerType === 'touch' && fingers.set(event.pointerId, event.clientX)
    const move = (event: PointerEvent) => {
      if (!fingers.has(event.pointerId)) return
      const before = measure()
      fingers.set(event.pointerId, event.clientX)
      if (fingers.size !== 2) return
      event.stopPropagation()
      const now = measure()
      latest.current({ factor: now.apart / before.apart, clientX: now.middle, dx: now.middle - before.middle })
    }
    const up = (event: PointerEvent) => fingers.delete(event.pointerId)
    element.addEventListener('pointerdown', down)
    element.addEventListener('pointermove', move, { capture: true })
    for (const kind of ['pointerup', 'pointercancel'] as const) element.addEventListener(kind, up)
    return () => {
      element.removeEventListener('pointerdown', down)
      element.removeEventListener('pointermove', move, { capture: true })
      for (const kind of ['pointerup', 'pointercancel'] as const) element.removeEventListener(kind, up)
    }
  }, [host])
}
