import type { z } from 'zod'
import { edit } from './edit'
import { highlightId, versionId } from './ids'
import { recordBase, title } from './record'

/** A highlight as it was when it was given a name to come back to. */
export const version = recordBase.extend({ id: versionId, highlightId, name: title, edit })
export type Version = z.infer<typeof version>
