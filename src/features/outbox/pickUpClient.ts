import { z } from 'zod'
import type { Render } from '@/core/model/render'
import { quietly } from '@/diagnostics/note'
import { filesOf } from '@/shared/rendering/filesOf'
import { wording } from './wording'

const told = z.object({
  code: z.string(),
  expiresAt: z.number(),
  addresses: z.array(z.string()).min(1),
  files: z.array(z.object({ name: z.string(), sizeBytes: z.number() })),
})
/** A pick-up as the application's server tells of it. */
export type PickUpTold = z.infer<typeof told>

const ADDRESS = '/api/pick-up'

export async function openPickUpNow(): Promise<PickUpTold | null> {
  return told.nullable().parse(await (await asked(fetch(ADDRESS))).json())
}

export async function closePickUpNow(): Promise<void> {
  await asked(fetch(ADDRESS, { method: 'DELETE' }))
}

const REASONS: Record<string, string> = {
  'too-large': wording.aPickUpHolds4,
  'too-many': wording.aPickUpHolds60,
  closed: wording.thePickUpWasClosed,
  'bad-type': wording.filesOfThisKindAre,
}

/**
 * Opens a pick-up and puts these files into it, one after the other. Throws, in words, what went wrong; the pick-up
 * is closed again then.
 */
export async function offerToPhone(
  renders: readonly Render[],
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<PickUpTold> {
  await asked(fetch(ADDRESS, { method: 'POST', signal }))
  try {
    let done = 0
    for (const render of renders) {
      for (const { name, blob } of await filesOf(render)) {
        const answer = await fetch(`${ADDRESS}/files?name=${encodeURIComponent(name)}`, {
          method: 'PUT',
          body: blob,
          signal,
        })
        const result = (await answer.json()) as { ok: boolean; reason?: string }
        if (!result.ok) throw new Error(`“${name}”: ${REASONS[result.reason ?? ''] ?? 'it could not be handed over'}`)
      }
      onProgress(++done / renders.length)
    }
    const now = await openPickUpNow()
    if (!now) throw new Error('the pick-up was closed')
    return now
  } catch (error) {
    await closePickUpNow().catch(quietly('the pick-up'))
    throw error
  }
}

async function asked(request: Promise<Response>): Promise<Response> {
  const answer = await request.catch((error: unknown) => {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Error('Brimble’s own server does not answer. It runs where you started Brimble')
  })
  if (!answer.ok) throw new Error(`Brimble’s own server said ${answer.status}`)
  return answer
}
