import { NextResponse, type NextRequest } from 'next/server'
import { isOwnHost } from './server/ownPages'
import { pagePolicy } from './server/securityPolicy'

/**
 * Gives every page its Content-Security-Policy with a fresh nonce, which Next puts on its own scripts. Pages are only
 * handed out under this server's own names, and only asked for: nothing can be sent to them.
 */
export function proxy(request: NextRequest) {
  if (!isOwnHost(request.headers.get('host'))) return new NextResponse(null, { status: 403 })
  if (request.method !== 'GET' && request.method !== 'HEAD') return new NextResponse(null, { status: 405 })
  const nonce = btoa(crypto.randomUUID())
  const policy = pagePolicy(nonce, process.env.NODE_ENV === 'development')
  const headers = new Headers(request.headers)
  headers.set('x-nonce', nonce)
  headers.set('Content-Security-Policy', policy)
  const response = NextResponse.next({ request: { headers } })
  response.headers.set('Content-Security-Policy', policy)
  return response
}

/** Bodies that go to route handlers are streamed, not held here. */
export const config = { matcher: ['/((?!_next/static|_next/image|demo/|favicon|api/).*)'] }
