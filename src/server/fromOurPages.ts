/** Whether a request comes from this application's own pages: no other page may make the server do anything. */
export function isFromOurPages(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site')
  const origin = request.headers.get('origin')
  const host = request.headers.get('host')
  if (site !== null && site !== 'same-origin') return false
  return origin === null ? request.method === 'GET' && site === 'same-origin' : new URL(origin).host === host
}
