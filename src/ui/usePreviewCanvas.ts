import { useEffect, useRef, type RefObject } from 'react'
import type { Player } from '@/media/playback/player'
import type { PreviewTarget } from '@/media/workers/preview.protocol'

/**
 * Puts a canvas that the preview worker draws into `host`, and keeps its pixels at the size it is shown. A canvas can be handed to a
 * worker only once, so each mount makes a new one. `target` must be the same object between renders.
 */
export function usePreviewCanvas(player: Player, host: RefObject<HTMLElement | null>, target: PreviewTarget, label: string): void {
  const name = useRef(label)
  name.current = label
  useEffect(() => {
    const element = host.current
    if (!element) return
    const key = crypto.randomUUID()
    const canvas = document.createElement('canvas')
    canvas.setAttribute('role', 'img')
    canvas.setAttribute('aria-label', name.current)
    canvas.style.cssText = 'display:block;width:100%;height:100%'
    element.prepend(canvas)
    const pixels = () => {
      const box = element.getBoundingClientRect()
      return { width: Math.max(1, Math.round(box.width * devicePixelRatio)), height: Math.max(1, Math.round(box.height * devicePixelRatio)) }
    }
    const first = pixels()
    canvas.width = first.width
    canvas.height = first.height
    player.attach(key, target, canvas)
    const observer = new ResizeObserver(() => {
      const { width, height } = pixels()
      player.resize(key, width, height)
    })
    observer.observe(element)
    return () => {
      observer.disconnect()
      player.detach(key)
      canvas.remove()
    }
  }, [player, host, target])
}
