import { z } from 'zod'
import { backEnd, measuredBackEnds } from '@/core/output/backEnd'
import { USUAL_PATTERN } from '@/core/output/fileName'
import { database } from './database'

/** How the Outbox works on this machine. */
const outboxSettings = z.object({
  /** Nothing is rendered while this is so. */
  held: z.boolean().default(false),
  /** How finished files are called; see core/output/fileName. */
  namePattern: z.string().min(1).max(200).default(USUAL_PATTERN),
  /** Whether the system tells when the queue is done or needs somebody. */
  notify: z.boolean().default(false),
  /** What draws the pictures: what was measured to be quicker here, or what the person says. */
  backEnd: z.union([z.literal('measured'), backEnd]).default('measured'),
  /** Null where nothing was measured yet, or not all that there is by now. */
  measured: measuredBackEnds.nullable().catch(null),
})
export type OutboxSettings = z.infer<typeof outboxSettings>

const KEY = 'outbox'

export async function readOutboxSettings(): Promise<OutboxSettings> {
  const kept = outboxSettings.safeParse((await database().settings.get(KEY))?.value ?? {})
  return kept.success ? kept.data : outboxSettings.parse({})
}

export async function changeOutboxSettings(change: Partial<OutboxSettings>): Promise<void> {
  await database().transaction('rw', database().settings, async () => {
    await database().settings.put({ key: KEY, value: { ...(await readOutboxSettings()), ...change } })
  })
}
