import type { HighlightId } from '@/core/model/ids'
import { settingsFor } from '@/core/output/renderSettings'
import { toSeconds } from '@/core/time/micros'
import { outputLength } from '@/core/time/timeMap'
import { loadEdit } from '@/store/highlights'
import { queueRenders } from '@/store/renders'

/** Queues a highlight as it is now, in each of its shapes, with the render settings that it has. How many files that makes; 0 when it cannot be opened. */
export async function renderAllShapes(id: HighlightId): Promise<number> {
  const loaded = await loadEdit(id)
  const passage = loaded.ok && loaded.edit.highlight.passages[0]
  const recording = loaded.ok && loaded.edit.recordings.find((r) => passage && r.id === passage.recordingId)
  if (!loaded.ok || !recording) return 0
  const { edit } = loaded
  const { shapes, output } = edit.highlight
  const seconds = toSeconds(outputLength(edit.highlight))
  return (await queueRenders(edit, shapes.map((shape) => ({ shape, settings: settingsFor(output, edit, shape, recording, seconds) })))).length
}
