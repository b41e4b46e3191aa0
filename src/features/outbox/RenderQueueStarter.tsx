'use client'

import { useEffect } from 'react'
import { isRendering, startRenderQueue } from './renderQueue'
import { startPosting } from './week/postRunner'

/** Keeps the render queue and the plan of posts going on every screen, and asks before a tab that is rendering is closed. */
export function RenderQueueStarter() {
  useEffect(() => {
    startRenderQueue()
    startPosting()
    const warn = (event: BeforeUnloadEvent) => {
      if (isRendering()) event.preventDefault()
    }
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [])
  return null
}
