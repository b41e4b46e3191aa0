'use client'

import { useEffect } from 'react'
import { keepRing } from '@/diagnostics/ring'
import { startFollowing } from '@/features/outbox/nodes/away'
import { isRendering, startRenderQueue } from '@/features/outbox/renderQueue'
import { startPosting } from '@/features/outbox/week/postRunner'
import { startWatching } from '@/features/shelf/watch/folderWatch'
import { startDrafts } from '@/shared/drafts/draftRunner'
import { tellOfOpening } from '@/shared/opening'
import { whenCalm } from '@/ui/whenCalm'

/**
 * Keeps what works by itself going on every screen: the render queue, what render nodes make, the plan of posts, the
 * watched folder, drafts, the diagnostics. Asks before a tab that is rendering is closed.
 */
export function AtWork() {
  useEffect(() => {
    const stopKeeping = keepRing()
    // What works by itself is not in the way of a screen that is being opened.
    const tellThatItIsOpen = tellOfOpening()
    const stopWaiting = whenCalm(() => {
      tellThatItIsOpen()
      startRenderQueue()
      startFollowing()
      startPosting()
      startWatching()
      startDrafts()
    })
    const warn = (event: BeforeUnloadEvent) => {
      if (isRendering()) event.preventDefault()
    }
    window.addEventListener('beforeunload', warn)
    return () => {
      stopWaiting()
      stopKeeping()
      window.removeEventListener('beforeunload', warn)
    }
  }, [])
  return null
}
