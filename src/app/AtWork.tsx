'use client'

import { useEffect } from 'react'
import { keepRing } from '@/diagnostics/ring'
import { startFollowing } from '@/features/outbox/nodes/away'
import { isRendering, startRenderQueue } from '@/features/outbox/renderQueue'
import { startPosting } from '@/features/outbox/week/postRunner'
import { startWatching } from '@/features/shelf/watch/folderWatch'

/**
 * Keeps what works by itself going on every screen: the render queue, what render nodes make, the plan of posts, the
 * watched folder, the diagnostics. Asks before a tab that is rendering is closed.
 */
export function AtWork() {
  useEffect(() => {
    startRenderQueue()
    startFollowing()
    startPosting()
    startWatching()
    const stopKeeping = keepRing()
    const warn = (event: BeforeUnloadEvent) => {
      if (isRendering()) event.preventDefault()
    }
    window.addEventListener('beforeunload', warn)
    return () => {
      stopKeeping()
      window.removeEventListener('beforeunload', warn)
    }
  }, [])
  return null
}
