import type { HighlightId } from '@/core/model/ids'
import type { OutputChoice } from '@/core/model/outputChoice'
import { captionsAsShown, wantedOf } from '@/core/output/renderSettings'
import { loadEdit } from '@/store/highlights'
import { queueRenders } from '@/store/renders'

/**
 * Queues a highlight as it is now, in each of its shapes, with these render settings, or those that it has. How many
 * files that makes; 0 when it cannot be opened.
 */
export async function renderAllShapes(id: HighlightId, output: OutputChoice | null): Promise<number> {
  const loaded = await loadEdit(id)
  if (!loaded.ok) return 0
  const { highlight } = loaded.edit
  const wanted = wantedOf(loaded.edit, highlight.shapes, captionsAsShown(output ?? highlight.output, highlight))
  return wanted.length === 0 ? 0 : (await queueRenders(loaded.edit, wanted)).length
}
