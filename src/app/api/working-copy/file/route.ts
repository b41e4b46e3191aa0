import { forOwnPages } from '@/server/ownPages'
import { currentCopy, type WorkingCopy } from '@/server/workingCopy/workingCopy'

export const dynamic = 'force-dynamic'

/** The copy that is asked for, if it is the one there is. */
function namedCopy(request: Request): WorkingCopy | null {
  const copy = currentCopy()
  return copy?.id === new URL(request.url).searchParams.get('id') ? copy : null
}

/** The finished copy of this `id`, once: it is removed when it was read. */
export const GET = forOwnPages(async (request) => {
  const copy = namedCopy(request)
  if (!copy) return new Response(null, { status: 404 })
  const { body, bytes } = await copy.open()
  return new Response(body, { headers: { 'content-type': 'video/mp4', 'content-length': String(bytes) } })
})

/** Nobody will come for the copy of this `id`: it is removed. */
export const DELETE = forOwnPages((request) => {
  namedCopy(request)?.remove()
  return new Response(null, { status: 204 })
})
