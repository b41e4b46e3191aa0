import { z } from 'zod'
import { database } from './database'

/** What the person has changed about the keys. */
const keySettings = z.object({
  /**
   * Whether keys that are single letters, digits or marks do anything: they are in the way of whoever speaks to the
   * machine.
   */
  letters: z.boolean().default(true),
  /** The letters in the place of others, by screen and the binding's id; see ui/keyBindings. */
  changed: z.record(z.string(), z.record(z.string(), z.string().regex(/^[a-z]$/))).default({}),
})
export type KeySettings = z.infer<typeof keySettings>

const KEY = 'keys'

export const USUAL_KEYS: KeySettings = keySettings.parse({})

export async function readKeySettings(): Promise<KeySettings> {
  const kept = keySettings.safeParse((await database().settings.get(KEY))?.value ?? {})
  return kept.success ? kept.data : USUAL_KEYS
}

/** Changes what is kept now, whatever has been changed since it was shown. */
export async function changeKeySettings(change: (now: KeySettings) => KeySettings): Promise<void> {
  const { settings } = database()
  await database().transaction('rw', settings, async () => {
    await settings.put({ key: KEY, value: change(await readKeySettings()) })
  })
}
