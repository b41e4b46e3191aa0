/** Names under which a browser on this machine reaches this server. */
const LOOPBACK_NAMES: readonly string[] = ['localhost', '127.0.0.1', '[::1]']

/** What `forOwnPages` needs of the process: `PORT`, which Next sets to the port it listens on, and `BRIMBLE_HOSTS`. */
type HostEnvironment = Partial<Record<string, string>>

/**
 * Whether a `Host` header names this server: a loopback name with its own port, or one of the hosts (`name` or
 * `name:port`, separated by commas) in BRIMBLE_HOSTS, which whoever starts the server sets. Any other name may have
 * been rebound to this machine by a page from elsewhere.
 */
export function isOwnHost(host: string | null, environment: HostEnvironment = process.env): boolean {
  const address = parseUrl(`http://${host ?? ''}`)
  if (!host || !address || address.host !== host.toLowerCase()) return false
  const port = address.port || '80'
  if (LOOPBACK_NAMES.includes(address.hostname) && port === environment.PORT) return true
  const named = (environment.BRIMBLE_HOSTS ?? '')
    .toLowerCase()
    .split(',')
    .map((name) => name.trim())
  return named.includes(address.host) || named.includes(address.hostname)
}

/**
 * Whether a request comes from a page of this application: no other page may make the server do anything, or read
 * what it answers.
 */
export function isFromOwnPages(request: Request, environment: HostEnvironment = process.env): boolean {
  const { headers, method } = request
  const host = headers.get('host')
  const site = headers.get('sec-fetch-site')
  const origin = headers.get('origin')
  if (!isOwnHost(host, environment)) return false
  if (site !== null && site !== 'same-origin') return false
  if (origin === null) return method === 'GET' && site === 'same-origin'
  return parseUrl(origin)?.host === host?.toLowerCase()
}

function parseUrl(text: string): URL | null {
  return URL.canParse(text) ? new URL(text) : null
}

type Handler = (request: Request) => Response | Promise<Response>

/**
 * A route handler that answers 403 to everything that does not come from this application's own pages. Every route is
 * wrapped in it.
 */
export function forOwnPages(handle: Handler): Handler {
  return (request) => (isFromOwnPages(request) ? handle(request) : new Response(null, { status: 403 }))
}
