import { forOwnPages } from '@/server/ownPages'
import { currentCopy } from '@/server/workingCopy/workingCopy'

export const dynamic = 'force-dynamic'

/** The finished copy of this `id`, once: it is removed when it was read. */
export const GET = forOwnPages(async (request) => {
  const copy = currentCopy()
  if (!copy || copy.id !== new URL(request.url).searchParams.get('id')) return new Response(null, { status: 404 })
  const { body, bytes } = await copy.open()
  return new Response(body, { headers: { 'content-type': 'video/mp4', 'content-length': String(bytes) } })
})
