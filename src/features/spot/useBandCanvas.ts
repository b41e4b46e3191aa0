import { useCallback, useEffect, useRef, type RefObject } from 'react'

/**
 * A canvas that fills its host and is drawn at most once a display frame, when `redraw` was called or when its size
 * changes. Sizes given to `draw` are CSS px; the canvas itself has as many pixels as the screen.
 */
export function useBandCanvas(draw: (ctx: CanvasRenderingContext2D, width: number, height: number) => void): {
  canvas: RefObject<HTMLCanvasElement | null>
  redraw: () => void
} {
  const canvas = useRef<HTMLCanvasElement>(null)
  const latest = useRef(draw)
  latest.current = draw
  const scheduled = useRef(0)
  const redraw = useCallback(() => {
    scheduled.current ||= requestAnimationFrame(() => {
      scheduled.current = 0
      const element = canvas.current
      const ctx = element?.getContext('2d', { alpha: false })
      if (!element || !ctx) return
      const { clientWidth, clientHeight } = element
      ctx.setTransform(element.width / Math.max(1, clientWidth), 0, 0, element.height / Math.max(1, clientHeight), 0, 0)
      latest.current(ctx, clientWidth, clientHeight)
    })
  }, [])
  useEffect(() => {
    const element = canvas.current
    if (!element) return
    const observer = new ResizeObserver(() => {
      element.width = Math.max(1, Math.round(element.clientWidth * devicePixelRatio))
      element.height = Math.max(1, Math.round(element.clientHeight * devicePixelRatio))
      redraw()
    })
    observer.observe(element)
    return () => {
      observer.disconnect()
      cancelAnimationFrame(scheduled.current)
      scheduled.current = 0
    }
  }, [redraw])
  return { canvas, redraw }
}
