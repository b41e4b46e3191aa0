import { recordingOf, type Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Micros } from '@/core/time/micros'
import { inspector } from '@/media/inspect/inspector'

/** Levels are compared in steps of this: sounds are lined up to within one. */
const STEP_MICROS = 10_000

/** So much of a passage is enough to know it by. */
const MAX_MICROS = 60_000_000

/**
 * How much later a passage's sound lies in another recording than in its own, and how alike the two are there; null
 * when one is silent.
 */
export async function offsetBySound(
  edit: Edit,
  files: ReadonlyMap<string, Blob>,
  { recordingId, inMicros, outMicros }: Passage,
  otherId: RecordingId,
): Promise<{ offsetMicros: Micros; likeness: number } | null> {
  const [own, other] = [recordingId, otherId].map((id) => ({ ...recordingOf(edit, id), file: files.get(id) }))
  if (!own?.file || !other?.file) return null
  const source = ({ id, originMicros, file }: { id: RecordingId; originMicros: number; file: Blob }) => ({
    id,
    originMicros,
    file,
  })
  const count = Math.ceil(Math.min(MAX_MICROS, outMicros - inMicros) / STEP_MICROS)
  const alignment = await inspector().lineUp(
    source({ ...own, file: own.file }),
    { fromMicros: inMicros, stepMicros: STEP_MICROS, count },
    source({ ...other, file: other.file }),
    { fromMicros: 0, stepMicros: STEP_MICROS, count: Math.ceil(other.durationMicros / STEP_MICROS) },
  )
  return alignment && { offsetMicros: alignment.at * STEP_MICROS - inMicros, likeness: alignment.likeness }
}
