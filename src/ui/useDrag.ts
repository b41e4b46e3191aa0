import { useCallback, useRef, type PointerEvent as ReactPointerEvent } from 'react'

export interface DragMove {
  /** Distance from where the drag began, CSS px. */
  dx: number
  dy: number
  clientX: number
  clientY: number
  shiftKey: boolean
  altKey: boolean
  ctrlKey: boolean
  /** The same for all moves of one drag: what undo groups by. */
  gesture: string
}

/**
 * A pointer drag: `begin` returns the handler for its moves, or null to let the pointer be. Moves are coalesced to
 * display frames; a lost pointer ends the drag where it is. `finish` is called at the end of every drag that began.
 */
export function useDrag(begin: (event: ReactPointerEvent) => ((move: DragMove) => void) | null, finish?: () => void) {
  const latest = useRef({ begin, finish })
  latest.current = { begin, finish }
  return useCallback((event: ReactPointerEvent) => {
    if (event.button !== 0) return
    const onMove = latest.current.begin(event)
    if (!onMove) return
    event.stopPropagation()
    const element = event.currentTarget as HTMLElement
    element.setPointerCapture(event.pointerId)
    const gesture = crypto.randomUUID()
    // What is dragged over is not text to be marked.
    const keepUnmarked = (e: Event) => e.preventDefault()
    document.addEventListener('selectstart', keepUnmarked)
    const start = { x: event.clientX, y: event.clientY }
    let pending: PointerEvent | null = null
    let scheduled = 0
    const apply = () => {
      scheduled = 0
      if (!pending) return
      const { clientX, clientY, shiftKey, altKey, ctrlKey } = pending
      pending = null
      onMove({ dx: clientX - start.x, dy: clientY - start.y, clientX, clientY, shiftKey, altKey, ctrlKey, gesture })
    }
    const move = (e: PointerEvent) => {
      pending = e
      scheduled ||= requestAnimationFrame(apply)
    }
    const end = () => {
      if (scheduled) {
        cancelAnimationFrame(scheduled)
        apply()
      }
      document.removeEventListener('selectstart', keepUnmarked)
      element.removeEventListener('pointermove', move)
      element.removeEventListener('lostpointercapture', end)
      latest.current.finish?.()
    }
    element.addEventListener('pointermove', move)
    element.addEventListener('lostpointercapture', end)
  }, [])
}
