import { PickUpServer } from './pickUpServer'

/** There is one pick-up at a time. Kept on the process: route handlers are built apart from each other. */
const held = globalThis as { brimblePickUp?: PickUpServer | null }

export function currentPickUp(): PickUpServer | null {
  return held.brimblePickUp?.pickUp.isOpen ? held.brimblePickUp : null
}

/** Opens a new one; what was open before is closed. */
export async function openPickUp(): Promise<PickUpServer> {
  closePickUp()
  return (held.brimblePickUp = await PickUpServer.start())
}

export function closePickUp(): void {
  held.brimblePickUp?.close()
  held.brimblePickUp = null
}
