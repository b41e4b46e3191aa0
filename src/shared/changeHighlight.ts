import type { HighlightId } from '@/core/model/ids'
import { editSession, loadEdit, type EditSession } from '@/store/highlights'

/**
 * Changes a highlight that is not open, as steps of its own history. False, with nothing changed, when it cannot be
 * opened or kept.
 */
export async function changeHighlight(
  id: HighlightId,
  change: (session: EditSession) => void | Promise<void>,
): Promise<boolean> {
  const loaded = await loadEdit(id)
  if (!loaded.ok) return false
  const session = editSession(loaded)
  await change(session)
  await session.flush()
  return session.store.getState().saving === 'saved'
}
