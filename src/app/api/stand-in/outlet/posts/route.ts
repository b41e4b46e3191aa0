import { z } from 'zod'
import { forOwnPages } from '@/server/ownPages'
import { answerJson } from '@/server/readBody'
import { FAULTS, faultNow, setFault, takenPosts, takePost } from '@/server/standIns/outlet'

export const dynamic = 'force-dynamic'

const MAX_FAULT_BYTES = 1000
const wanted = z.object({ fault: z.enum(FAULTS) })

/** What the stand-in has taken, and how it is set to fail. */
export const GET = forOwnPages(() => Response.json({ standIn: true, posts: takenPosts(), fault: faultNow() }))

/** Takes a file as the body; what is said of it comes in the query, its key in `Idempotency-Key`. */
export const POST = forOwnPages(async (request) => {
  const asked = new URL(request.url).searchParams
  const of = (name: string) => asked.get(name) ?? ''
  const key = request.headers.get('idempotency-key') ?? ''
  if (key === '') return Response.json({ error: 'A post needs an Idempotency-Key.' }, { status: 400 })
  try {
    const { status, body } = await takePost({
      key,
      outlet: of('outlet'),
      title: of('title'),
      text: of('text'),
      fileName: of('file'),
      body: request.body,
    })
    return Response.json(body, { status })
  } catch {
    // What a line says whose other end is not there.
    return new Response(null, { status: 502 })
  }
})

/** Sets how it fails from now on: for trying out. */
export const PUT = forOwnPages((request) =>
  answerJson(request, wanted, MAX_FAULT_BYTES, ({ fault }) => {
    setFault(fault)
    return new Response(null, { status: 204 })
  }),
)
