import { readBytes } from '@/server/readBody'
import { forOwnPages } from '@/server/ownPages'
import { hasPocketsphinx, HEARD_RATE, hearSpeech, MAX_SECONDS } from '@/server/hearing/pocketsphinx'

export const dynamic = 'force-dynamic'

const MAX_BYTES = 2 * HEARD_RATE * MAX_SECONDS

/** Whether this machine has a recogniser of speech. */
export const GET = forOwnPages(async () => Response.json({ pocketsphinx: await hasPocketsphinx() }))

/** What is said in mono samples of 16 bit, little-endian, {@link HEARD_RATE} a second, {@link MAX_SECONDS} at most. */
export const POST = forOwnPages(async (request) => {
  if (!(await hasPocketsphinx())) return new Response(null, { status: 501 })
  const samples = await readBytes(request, MAX_BYTES)
  if (samples === null) return new Response(null, { status: 413 })
  if (samples.byteLength === 0 || samples.byteLength % 2 !== 0) return new Response(null, { status: 400 })
  const heard = await hearSpeech(samples, request.signal).catch((error: unknown) => {
    if (request.signal.aborted) return 'stopped' as const
    throw error
  })
  if (heard === 'stopped') return new Response(null, { status: 400 })
  if (heard === 'busy') return new Response(null, { status: 409 })
  return Response.json({ words: heard })
})
