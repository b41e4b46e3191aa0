import type { ReadableStream } from 'node:stream/web'
import { forOwnPages } from '@/server/ownPages'
import { currentPickUp } from '@/server/pickUp/current'

export const dynamic = 'force-dynamic'

const REFUSED = { 'too-large': 413, closed: 409, 'too-many': 409, 'bad-type': 409 }

/** Adds the request's body to the open pick-up, under the name in `?name=`. */
export const PUT = forOwnPages(async (request) => {
  const open = currentPickUp()
  const name = new URL(request.url).searchParams.get('name') ?? ''
  if (!open || !request.body) return Response.json({ ok: false, reason: 'closed' }, { status: 409 })
  const result = await open.pickUp.add(name, request.body as ReadableStream<Uint8Array>)
  return Response.json(result, { status: result.ok ? 201 : REFUSED[result.reason] })
})
