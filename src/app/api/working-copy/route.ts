import { forOwnPages } from '@/server/ownPages'
import { hasFfmpeg, WorkingCopy } from '@/server/workingCopy/workingCopy'

export const dynamic = 'force-dynamic'

const REFUSED = { busy: 409, 'no-room': 507, 'no-picture': 422 } as const

/** Whether this machine can make working copies. */
export const GET = forOwnPages(async () => Response.json({ ffmpeg: await hasFfmpeg() }))

/**
 * Takes a recording in and makes a copy of it. Answers with a line of JSON for each step of progress, and last with
 * `{ id, fromHdr }` of the copy or `{ problem }`; ends the work when the page goes away.
 */
export const POST = forOwnPages(async (request) => {
  const bytes = Number(request.headers.get('content-length'))
  if (!request.body || !(bytes > 0)) return new Response(null, { status: 400 })
  if (!(await hasFfmpeg())) return new Response(null, { status: 501 })
  // A page that goes away while it sends breaks the body off.
  const copy = await WorkingCopy.take(request.body, bytes, request.signal).catch(() => null)
  if (!copy) return new Response(null, { status: 400 })
  if (typeof copy === 'string') return Response.json({ refused: copy }, { status: REFUSED[copy] })
  request.signal.addEventListener('abort', () => copy.remove())
  const encoder = new TextEncoder()
  const lines = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: object) => {
        try {
          controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`))
        } catch {
          // The page has left; cancel has ended the work.
        }
      }
      const problem = await copy.make(say)
      if (problem !== null) copy.remove()
      say(problem === null ? { id: copy.id, fromHdr: copy.isFromHdr } : { problem })
      try {
        controller.close()
      } catch {
        // As above.
      }
    },
    cancel: () => copy.remove(),
  })
  return new Response(lines, { headers: { 'content-type': 'application/x-ndjson' } })
})
