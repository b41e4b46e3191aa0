import { z } from 'zod'
import { bed } from './bed'
import { draft } from './draft'
import { brandId, highlightId, recordingId } from './ids'
import { passage } from './passage'
import { outputChoice, USUAL_OUTPUT } from './outputChoice'
import { MAX_MARKS, pictureMark } from './pictureMark'
import { micros, recordBase, title } from './record'
import { shape } from './shape'
import { NO_WORDS, words } from './words'

/**
 * What a join does to time. *hold*: cut points stay where they are on the output clock; a join takes half its length
 * from beyond the cut on either side. *overlap*: neighbours share the join's length, and all that follows comes
 * earlier.
 */
export const joinTiming = z.enum(['hold', 'overlap'])
export type JoinTiming = z.infer<typeof joinTiming>

/** The moment of a recording that a highlight was cut for. */
export const origin = z.object({ recordingId, inMicros: micros, outMicros: micros, label: z.string().max(200) })

export const MAX_PASSAGES = 500
export const MAX_SHAPES = 12
export const MAX_BEDS = 8

/** What is cut from recordings: passages in order, and the shapes it goes out in. */
export const highlight = recordBase.extend({
  id: highlightId,
  name: title,
  passages: z.array(passage).min(1).max(MAX_PASSAGES),
  shapes: z.array(shape).min(1).max(MAX_SHAPES),
  joinTiming: joinTiming.default('hold'),
  /** Music and voices under everything. */
  beds: z.array(bed).max(MAX_BEDS).default([]),
  origin: origin.nullable().default(null),
  words: words.default(NO_WORDS),
  /** What else is put over the picture, later over earlier. */
  marks: z.array(pictureMark).max(MAX_MARKS).default([]),
  /** Faults that are meant so, by what causes them; see core/findings. */
  accepted: z.array(z.string().max(200)).max(500).default([]),
  /** How it was rendered last, or is to be. */
  output: outputChoice.default(USUAL_OUTPUT),
  /** Peaks of the mix are held under this, dBTP; null: as they come. */
  limitDb: z.number().min(-20).max(0).nullable().default(null),
  /** In whose colours it is. */
  brandId: brandId.nullable().default(null),
  /** Where it was made as a draft. */
  draft: draft.optional(),
})

export type Highlight = z.infer<typeof highlight>
