import { forOwnPages } from '@/server/ownPages'
import { closePickUp, currentPickUp, openPickUp } from '@/server/pickUp/current'
import type { PickUpServer } from '@/server/pickUp/pickUpServer'

export const dynamic = 'force-dynamic'

const told = (server: PickUpServer) => ({
  code: server.pickUp.code,
  expiresAt: server.pickUp.expiresAt,
  addresses: server.addresses(),
  files: server.pickUp.files.map(({ name, sizeBytes }) => ({ name, sizeBytes })),
})

/** The pick-up that is open, or null. */
export const GET = forOwnPages(() => {
  const open = currentPickUp()
  return Response.json(open && told(open))
})

/** Opens a pick-up without files yet. */
export const POST = forOwnPages(async () => Response.json(told(await openPickUp())))

/** Closes it and removes its files. */
export const DELETE = forOwnPages(() => {
  closePickUp()
  return new Response(null, { status: 204 })
})
