import { useEffect } from 'react'
import type { Session } from '@/store/session'

/**
 * Writes what was done when a drag or a run of keys ends and when the page is put away, and asks before it is left
 * with something not written yet.
 */
export function useKeepSaved<T extends object>(session: Session<T>): void {
  useEffect(() => {
    const save = () => void session.flush()
    // The last move of a drag is made with the next picture.
    const saveSoon = () => requestAnimationFrame(save)
    const ask = (event: BeforeUnloadEvent) => {
      if (!session.isUnwritten) return
      save()
      event.preventDefault()
    }
    const listeners = [
      [window, 'pointerup', saveSoon],
      [window, 'keyup', saveSoon],
      [window, 'pagehide', save],
      [document, 'visibilitychange', save],
    ] as const
    for (const [target, event, listener] of listeners) target.addEventListener(event, listener)
    window.addEventListener('beforeunload', ask)
    return () => {
      for (const [target, event, listener] of listeners) target.removeEventListener(event, listener)
      window.removeEventListener('beforeunload', ask)
    }
  }, [session])
}
