import { z } from 'zod'
import { outletId, postId, renderId } from './ids'
import { recordBase, timestamp } from './record'

/** Longer texts are no outlet's. */
export const MAX_TEXT = 5000

/** Why an outlet did not take a file. *offline* and *busy* pass by themselves; the others need a person. */
export const postFailure = z.enum([
  'offline',
  'busy',
  'too-large',
  'refused',
  'signed-out',
  'file-gone',
  'text-too-long',
])
export type PostFailure = z.infer<typeof postFailure>

export const postState = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('planned') }),
  z.object({ kind: z.literal('sending') }),
  z.object({ kind: z.literal('posted'), at: timestamp, remoteId: z.string().max(200) }),
  /** `again`: when it is tried again by itself; null: when somebody says so. */
  z.object({
    kind: z.literal('failed'),
    reason: postFailure,
    detail: z.string().max(500),
    attempts: z.number().int().positive(),
    again: timestamp.nullable(),
  }),
])
export type PostState = z.infer<typeof postState>

/** A finished file that is to go, or has gone, to an outlet at a time. */
export const post = recordBase.extend({
  id: postId,
  renderId,
  outletId,
  dueAt: timestamp,
  title: z.string().max(300),
  text: z.string().max(MAX_TEXT).default(''),
  state: postState,
})
export type Post = z.infer<typeof post>
