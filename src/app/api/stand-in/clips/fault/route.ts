import { isFromOurPages } from '@/server/fromOurPages'
import { CLIP_FAULTS, clipFaultNow, setClipFault, type ClipFault } from '@/server/standIns/clipHost'

export const dynamic = 'force-dynamic'

/** How the stand-in is set to fail. A real host has nothing like it. */
export function GET(request: Request): Response {
  return isFromOurPages(request) ? Response.json({ fault: clipFaultNow() }) : new Response(null, { status: 403 })
}

/** Sets how it fails from now on: for trying out. */
export async function PUT(request: Request): Promise<Response> {
  if (!isFromOurPages(request)) return new Response(null, { status: 403 })
  const { fault } = (await request.json().catch(() => ({}))) as { fault?: string }
  if (!(CLIP_FAULTS as readonly string[]).includes(fault ?? '')) return new Response(null, { status: 400 })
  setClipFault(fault as ClipFault)
  return new Response(null, { status: 204 })
}
