import { isFromOurPages } from '@/server/fromOurPages'
import { closePickUp, currentPickUp, openPickUp } from '@/server/pickUp/current'
import type { PickUpServer } from '@/server/pickUp/pickUpServer'

export const dynamic = 'force-dynamic'

const told = (server: PickUpServer) => ({ code: server.pickUp.code, expiresAt: server.pickUp.expiresAt, addresses: server.addresses(), files: server.pickUp.files.map(({ name, sizeBytes }) => ({ name, sizeBytes })) })
const refused = () => new Response(null, { status: 403 })

/** The pick-up that is open, or null. */
export function GET(request: Request): Response {
  if (!isFromOurPages(request)) return refused()
  const open = currentPickUp()
  return Response.json(open && told(open))
}

/** Opens a pick-up without files yet. */
export async function POST(request: Request): Promise<Response> {
  return isFromOurPages(request) ? Response.json(told(await openPickUp())) : refused()
}

/** Closes it and removes its files. */
export async function DELETE(request: Request): Promise<Response> {
  if (!isFromOurPages(request)) return refused()
  await closePickUp()
  return new Response(null, { status: 204 })
}
