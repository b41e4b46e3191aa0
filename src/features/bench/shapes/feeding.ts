import { passageOf } from '@/core/model/edit'
import type { PanelId, PassageId } from '@/core/model/ids'
import type { RecordingFeed } from '@/core/model/passage'
import type { EditSession } from '../edits'

/** Lets a panel of one passage play a recording of its own. */
export function setFeed(session: EditSession, passageId: PassageId, panelId: PanelId, plays: RecordingFeed, label: string, gesture: string = crypto.randomUUID()): void {
  session.change(label, gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    passage.feeds = [...passage.feeds.filter((f) => f.panelId !== panelId), { panelId, plays }]
  })
}

/** Lets a panel play its passage again. */
export function clearFeed(session: EditSession, passageId: PassageId, panelId: PanelId): void {
  session.change('Play this passage', crypto.randomUUID(), (draft) => {
    const passage = passageOf(draft, passageId)
    passage.feeds = passage.feeds.filter((f) => f.panelId !== panelId)
  })
}
