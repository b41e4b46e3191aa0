import { z } from 'zod'
import { highlightId } from './ids'
import { passage } from './passage'
import { recordBase, title } from './record'
import { shape } from './shape'

/** What is cut from recordings: passages in order, and the shapes it goes out in. */
export const highlight = recordBase.extend({
  id: highlightId,
  name: title,
  passages: z.array(passage).min(1).max(500),
  shapes: z.array(shape).min(1).max(12),
})

export type Highlight = z.infer<typeof highlight>
