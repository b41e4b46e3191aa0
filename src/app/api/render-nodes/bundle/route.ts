import { forOwnPages } from '@/server/ownPages'
import { hasRenderNodes, leaveBundle } from '@/server/renderNodes'

export const dynamic = 'force-dynamic'

/** Takes a bundle as the body and leaves it where the render nodes look for recordings. */
export const PUT = forOwnPages(async (request) => {
  if (!hasRenderNodes() || !request.body) return new Response(null, { status: 400 })
  try {
    const left = await leaveBundle(request.body)
    return left ? Response.json(left) : Response.json({ error: 'no-media-folder' }, { status: 409 })
  } catch {
    return new Response(null, { status: 507 })
  }
})
