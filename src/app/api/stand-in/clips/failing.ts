import type { ClipFault } from '@/server/standIns/clipHost'

/** What the stand-in answers to everything while it is set to fail so; null while it is not. */
export function failingAs(fault: ClipFault): Response | null {
  if (fault === 'offline') return new Response(null, { status: 502 })
  if (fault === 'busy') return Response.json({ error: 'Too much is going on here. Try again later.' }, { status: 503 })
  if (fault === 'signed-out')
    return Response.json({ error: 'The sign-in has run out. Sign in again.' }, { status: 401 })
  return null
}
