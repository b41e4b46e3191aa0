// What a job in the nodes' queue holds. Checked where it is handed in, and again by the node that takes it: whoever
// reaches Redis can write one.
import { z } from 'zod'

/**
 * Fields of every job, for strict objects. `name`: of the file, without an ending; made safe for file systems by
 * whoever writes the file.
 */
export const jobFields = {
  id: z.string().regex(/^[A-Za-z0-9-]{1,80}$/),
  highlight: z.string().max(500),
  name: z.string().min(1).max(250),
  frames: z.number().int().nonnegative(),
  at: z.number().int().min(0).max(200),
}

/** A bundle in the nodes' media folder, under a name of what it holds. */
export const bundleLeft = z.strictObject({
  fileName: z.string().regex(/^[0-9a-f]{32}\.brimble\.zip$/),
  sizeBytes: z.number().int().nonnegative(),
})

/** An edit as text, characters; as core/interchange/bundle has it. */
export const MAX_TEXT = 64_000_000

/** The page that renders checks the file's shape and settings itself. */
const job = z.union([
  z.strictObject({ ...jobFields, file: z.looseObject({}), text: z.string().max(MAX_TEXT) }),
  z.strictObject({ ...jobFields, file: z.looseObject({}), bundle: bundleLeft }),
])

/** A job as it came out of Redis, checked; null when it is not one. */
export function readJob(data) {
  return job.safeParse(data).data ?? null
}
