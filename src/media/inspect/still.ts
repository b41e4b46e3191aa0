import { compose } from '@/core/compose/compose'
import { feedsOf } from '@/core/compose/composition'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { Shape } from '@/core/model/shape'
import type { Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { Composer } from '../draw/composer'
import { SourceSet } from '../source/sourceSet'

/**
 * One frame of a highlight at output time `t`, drawn as it would be rendered but for figures of its sound, `height`
 * px high; null when a recording is missing.
 */
export async function stillOf(
  edit: Edit,
  shape: Shape,
  files: ReadonlyMap<string, Blob>,
  t: Micros,
  height: number,
): Promise<Blob | null> {
  const composition = compose(edit, timeMapOf(edit.highlight), shape, t)
  if (!composition) return null
  const sources = await SourceSet.openAll(edit, files)
  if (!(sources instanceof SourceSet)) return null
  try {
    await sources.load(feedsOf(composition), (id) => recordingOf(edit, id).fileName)
    const canvas = new OffscreenCanvas(Math.round((height * shape.width) / shape.height), height)
    const ctx = canvas.getContext('2d', { alpha: false })
    if (!ctx) return null
    await new Composer().draw([{ ctx, composition }], {
      frameOf: sources.frameOf,
      imageOf: sources.imageOf,
      figureAt: () => [],
    })
    return await canvas.convertToBlob({ type: 'image/webp', quality: 0.85 })
  } finally {
    await sources.close()
  }
}
