import { useEffect, useRef, type RefObject } from 'react'
import type { Player } from '@/media/playback/player'
import type { PreviewTarget } from '@/media/workers/preview.protocol'

/**
 * Puts a canvas that the preview worker draws into `host`, which has a size of its own and is what its contents are
 * placed in, and keeps its pixels at the size it is shown. A canvas can be handed to a worker only once, so each
 * mount makes a new one. `target` must be the same object between renders; while it is null nothing is drawn.
 */
export function usePreviewCanvas(
  player: Player,
  host: RefObject<HTMLElement | null>,
  target: PreviewTarget | null,
  label: string,
): void {
  const name = useRef(label)
  name.current = label
  useEffect(() => {
    const element = host.current
    if (!element || !target) return
    const key = crypto.randomUUID()
    const canvas = document.createElement('canvas')
    canvas.setAttribute('role', 'img')
    canvas.setAttribute('aria-label', name.current)
    // Out of the flow: its size in pixels must not keep the host from shrinking.
    canvas.style.position = 'absolute'
    element.prepend(canvas)
    /**
     * The pixels that the host covers. The canvas is laid on them exactly: half a pixel beside, the browser would
     * draw it anew and soften it.
     */
    const pixels = () => {
      const { left, top, right, bottom } = element.getBoundingClientRect()
      const [x, y, endX, endY] = [left, top, right, bottom].map((edge) => Math.round(edge * devicePixelRatio)) as [
        number,
        number,
        number,
        number,
      ]
      const size = { width: Math.max(1, endX - x), height: Math.max(1, endY - y) }
      canvas.style.left = `${x / devicePixelRatio - left}px`
      canvas.style.top = `${y / devicePixelRatio - top}px`
      canvas.style.width = `${size.width / devicePixelRatio}px`
      canvas.style.height = `${size.height / devicePixelRatio}px`
      return size
    }
    const first = pixels()
    canvas.width = first.width
    canvas.height = first.height
    player.attach(key, target, canvas)
    const observer = new ResizeObserver(() => {
      const { width, height } = pixels()
      player.resize(key, width, height)
    })
    // What it lies in may put it elsewhere without changing its size.
    for (let around: HTMLElement | null = element; around; around = around.parentElement) observer.observe(around)
    return () => {
      observer.disconnect()
      player.detach(key)
      canvas.remove()
    }
  }, [player, host, target])
}
