import { NextResponse, type NextRequest } from 'next/server'
import { pagePolicy } from './server/securityPolicy'

/** Gives every page its Content-Security-Policy with a fresh nonce, which Next puts on its own scripts. */
export function proxy(request: NextRequest) {
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
