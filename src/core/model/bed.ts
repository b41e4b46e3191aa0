import { z } from 'zod'
import { bedId, soundFileId } from './ids'
import { micros, recordBase, title } from './record'
import { soundFacts } from './recording'

/** A file of sound alone (music, a voice) that can lie under a highlight. */
export const soundFile = recordBase.extend({
  id: soundFileId,
  name: title,
  fileName: z.string().max(1000),
  sizeBytes: z.number().int().nonnegative(),
  durationMicros: micros,
  originMicros: z.number().int(),
  sound: soundFacts,
})
export type SoundFile = z.infer<typeof soundFile>

/** A sound file laid under a highlight: from output time `startMicros` on, beginning at the file's own `inMicros`. */
export const bed = z.object({
  id: bedId,
  soundFileId,
  startMicros: micros,
  inMicros: micros,
  gainDb: z.number().min(-60).max(24),
  fadeInMicros: micros.max(30_000_000),
  fadeOutMicros: micros.max(30_000_000),
  /** How far it is lowered while somebody speaks in the passages; 0 leaves it alone. */
  duckDb: z.number().min(0).max(60),
})
export type Bed = z.infer<typeof bed>
