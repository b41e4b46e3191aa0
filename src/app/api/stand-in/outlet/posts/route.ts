import { isFromOurPages } from '@/server/fromOurPages'
import { FAULTS, faultNow, setFault, takenPosts, takePost, type Fault } from '@/server/standIns/outlet'

export const dynamic = 'force-dynamic'

const refused = () => new Response(null, { status: 403 })

/** What the stand-in has taken, and how it is set to fail. */
export function GET(request: Request): Response {
  return isFromOurPages(request) ? Response.json({ standIn: true, posts: takenPosts(), fault: faultNow() }) : refused()
}

/** Takes a file as the body; what is said of it comes in the query, its key in `Idempotency-Key`. */
export async function POST(request: Request): Promise<Response> {
  if (!isFromOurPages(request)) return refused()
  const asked = new URL(request.url).searchParams
  const of = (name: string) => asked.get(name) ?? ''
  const key = request.headers.get('idempotency-key') ?? ''
  if (key === '') return Response.json({ error: 'A post needs an Idempotency-Key.' }, { status: 400 })
  try {
    const { status, body } = await takePost({ key, outlet: of('outlet'), title: of('title'), text: of('text'), fileName: of('file'), body: request.body })
    return Response.json(body, { status })
  } catch {
    // What a line says whose other end is not there.
    return new Response(null, { status: 502 })
  }
}

/** Sets how it fails from now on: for trying out. */
export async function PUT(request: Request): Promise<Response> {
  if (!isFromOurPages(request)) return refused()
  const { fault } = (await request.json().catch(() => ({}))) as { fault?: string }
  if (!(FAULTS as readonly string[]).includes(fault ?? '')) return new Response(null, { status: 400 })
  setFault(fault as Fault)
  return new Response(null, { status: 204 })
}
