import { z } from 'zod'
import { MOST_BUNDLE_JSON_BYTES } from '@/core/interchange/bundle'
import { renderSettings } from '@/core/model/render'
import { shape } from '@/core/model/shape'
import { isFromOurPages } from '@/server/fromOurPages'
import { handToNodes, hasRenderNodes, RedisAway, standingOf, takeBack } from '@/server/renderNodes'

export const dynamic = 'force-dynamic'

const id = z.string().regex(/^[A-Za-z0-9-]{1,80}$/)
const MOST_IDS = 500

const common = { id, highlight: z.string().max(500), name: z.string().min(1).max(250), frames: z.number().int().nonnegative(), file: z.object({ shape, settings: renderSettings }), at: z.literal(0) }
const job = z.union([
  z.strictObject({ ...common, text: z.string().max(MOST_BUNDLE_JSON_BYTES) }),
  z.strictObject({ ...common, bundle: z.object({ fileName: z.string().regex(/^[0-9a-f]{32}\.brimble\.zip$/), sizeBytes: z.number().int().nonnegative() }) }),
])

async function answered(request: Request, work: () => Promise<Response>): Promise<Response> {
  if (!isFromOurPages(request)) return new Response(null, { status: 403 })
  try {
    return await work()
  } catch (error) {
    if (error instanceof RedisAway) return Response.json({ error: 'redis-away' }, { status: 503 })
    throw error
  }
}

const askedIds = (request: Request) => z.array(id).max(MOST_IDS).safeParse((new URL(request.url).searchParams.get('ids') ?? '').split(',').filter(Boolean))

/** Whether this server knows of render nodes, and how the asked jobs stand. */
export function GET(request: Request): Promise<Response> {
  return answered(request, async () => {
    const ids = askedIds(request)
    if (!ids.success) return new Response(null, { status: 400 })
    const nodes = hasRenderNodes()
    return Response.json({ nodes, jobs: nodes && ids.data.length > 0 ? await standingOf(ids.data) : [] })
  })
}

/** Hands a render to the nodes. */
export function POST(request: Request): Promise<Response> {
  return answered(request, async () => {
    const read = job.safeParse(await request.json().catch(() => null))
    if (!hasRenderNodes() || !read.success) return new Response(null, { status: 400 })
    return Response.json({ outcome: await handToNodes(read.data) })
  })
}

/** Takes a job back that no node is at work on. */
export function DELETE(request: Request): Promise<Response> {
  return answered(request, async () => {
    const ids = askedIds(request)
    const [only] = ids.data ?? []
    if (!hasRenderNodes() || only === undefined) return new Response(null, { status: 400 })
    return Response.json({ taken: await takeBack(only) })
  })
}
