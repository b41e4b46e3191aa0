import { z } from 'zod'
import { renderSettings } from '@/core/model/render'
import { fileSafe } from '@/core/output/fileName'
import { shape } from '@/core/model/shape'
import { forOwnPages } from '@/server/ownPages'
import { answerJson } from '@/server/readBody'
import { bundleLeft, jobFields, MAX_TEXT } from '../../../../unattended/job.mjs'
import { handToNodes, hasRenderNodes, RedisAway, standingOf, takeBack } from '@/server/renderNodes'

export const dynamic = 'force-dynamic'

const MAX_IDS = 500
/** An edit as text, and what is said beside it. */
const MAX_JOB_BYTES = MAX_TEXT + 1_000_000

const common = {
  ...jobFields,
  name: jobFields.name.refine((name) => name === fileSafe(name)),
  file: z.object({ shape, settings: renderSettings }),
  at: z.literal(0),
}
const job = z.union([
  z.strictObject({ ...common, text: z.string().max(MAX_TEXT) }),
  z.strictObject({ ...common, bundle: bundleLeft }),
])

async function answered(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof RedisAway) return Response.json({ error: 'redis-away' }, { status: 503 })
    throw error
  }
}

const askedIds = (request: Request) =>
  z
    .array(jobFields.id)
    .max(MAX_IDS)
    .safeParse((new URL(request.url).searchParams.get('ids') ?? '').split(',').filter(Boolean))

/** Whether this server knows of render nodes, and how the asked jobs stand. */
export const GET = forOwnPages((request) =>
  answered(async () => {
    const ids = askedIds(request)
    if (!ids.success) return new Response(null, { status: 400 })
    const nodes = hasRenderNodes()
    return Response.json({ nodes, jobs: nodes && ids.data.length > 0 ? await standingOf(ids.data) : [] })
  }),
)

/** Hands a render to the nodes. */
export const POST = forOwnPages((request) =>
  answered(async () => {
    if (!hasRenderNodes()) return new Response(null, { status: 400 })
    return answerJson(request, job, MAX_JOB_BYTES, async (asked) =>
      Response.json({ outcome: await handToNodes(asked) }),
    )
  }),
)

/** Takes a job back that no node is at work on. */
export const DELETE = forOwnPages((request) =>
  answered(async () => {
    const ids = askedIds(request)
    const [only] = ids.data ?? []
    if (!hasRenderNodes() || only === undefined) return new Response(null, { status: 400 })
    return Response.json({ taken: await takeBack(only) })
  }),
)
