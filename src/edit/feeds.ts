import { passageOf } from '@/core/model/edit'
import type { PanelId, PassageId } from '@/core/model/ids'
import type { RecordingFeed } from '@/core/model/passage'
import { command } from './command'

/** What panels play besides their passage. */

/** Lets a panel of one passage play a recording of its own. */
export const setFeed = command<{ passageId: PassageId; panelId: PanelId; plays: RecordingFeed; label: string }>({
  id: 'set-feed',
  label: ({ label }) => label,
  apply: (draft, { passageId, panelId, plays }) => {
    const passage = passageOf(draft, passageId)
    passage.feeds = [...passage.feeds.filter((f) => f.panelId !== panelId), { panelId, plays }]
  },
})

/** Lets a panel play its passage again. */
export const clearFeed = command<{ passageId: PassageId; panelId: PanelId }>({
  id: 'clear-feed',
  label: 'Play this passage',
  apply: (draft, { passageId, panelId }) => {
    const passage = passageOf(draft, passageId)
    passage.feeds = passage.feeds.filter((f) => f.panelId !== panelId)
  },
})
