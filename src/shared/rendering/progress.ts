import { createStore } from 'zustand/vanilla'
import type { RenderId } from '@/core/model/ids'
import type { RenderProgress } from '@/media/render/renderJob'

/** Progress of renders at work, here or at render nodes. Kept out of the store: it is of no use after a reload. */
export const renderProgress = createStore<Record<RenderId, RenderProgress>>(() => ({}))

/** What this tab does before there is progress to tell of. */
export type Preparing = 'starting' | 'measuring'

export const renderPreparing = createStore<{ ids: readonly RenderId[]; doing: Preparing }>(() => ({
  ids: [],
  doing: 'starting',
}))

export function forgetProgress(ended: RenderId): void {
  renderProgress.setState((all) => Object.fromEntries(Object.entries(all).filter(([id]) => id !== ended)), true)
}
