import { createReadStream } from 'node:fs'
import { setTimeout as delay } from 'node:timers/promises'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { networkInterfaces } from 'node:os'
import type { AddressInfo } from 'node:net'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { codePage, filesPage, messagePage, type Page } from './page'
import { PickUp, USUAL_LIMITS, type PickUpLimits } from './pickUp'

/**
 * Every code is looked at as soon as it comes, so that nobody can keep the right one out by giving wrong ones.
 * Guessing is slow all the same: an address has so many codes looked at in a second, and after a few wrong ones the
 * answer to each further one is held back. At this speed all of a network's 254 addresses try less than a
 * ten-thousandth of the 8.5 · 10¹¹ codes in the half hour that a pick-up lasts.
 */
const LOOKED_AT = { points: 50, duration: 1 }
/** Wrong codes that are answered at once, in ten minutes from one address: people mistype. */
const ANSWERED_AT_ONCE = { points: 10, duration: 600 }
const HELD_BACK_MS = 2000

/**
 * A server of its own on the local network that is there only while something lies ready: it knows one code, its page
 * and its files, and nothing else of the application. Without the code it lists nothing.
 */
export class PickUpServer {
  private readonly lookedAt = new RateLimiterMemory(LOOKED_AT)
  private readonly wrong = new RateLimiterMemory(ANSWERED_AT_ONCE)

  private constructor(
    readonly pickUp: PickUp,
    private readonly server: Server,
    private readonly heldBackMs: number,
  ) {
    server.on('request', (request, response) => void this.answer(request, response).catch(() => response.destroy()))
  }

  /** `heldBackMs`: how long the answer to a wrong code is held back, for tests. */
  static async start(limits: PickUpLimits = USUAL_LIMITS, heldBackMs = HELD_BACK_MS): Promise<PickUpServer> {
    const server = createServer()
    const pickUp = PickUp.open(limits, () => {
      server.close()
      server.closeAllConnections()
    })
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject)
      server.listen(0, '0.0.0.0', resolve)
    })
    return new PickUpServer(pickUp, server, heldBackMs)
  }

  get port(): number {
    return (this.server.address() as AddressInfo | null)?.port ?? 0
  }

  /** Where it can be reached: this machine's addresses on its networks, else itself alone. */
  addresses(): string[] {
    const interfaces = Object.values(networkInterfaces())
      .flatMap((all) => all ?? [])
      .filter((a) => a.family === 'IPv4' && !a.internal)
    return (interfaces.length > 0 ? interfaces.map((a) => a.address) : ['127.0.0.1']).map(
      (host) => `http://${host}:${this.port}`,
    )
  }

  close(): void {
    this.pickUp.close()
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return send(response, 405, messagePage('That cannot be done here.'))
    const url = new URL(request.url ?? '/', 'http://pick-up')
    const asked = url.searchParams.get('code')
    const [, kind, code = '', index] = asked === null ? url.pathname.split('/') : ['', 'c', asked]
    if (url.pathname === '/' && asked === null) return send(response, 200, codePage(''))
    if (kind !== 'c') return send(response, 404, messagePage('There is nothing here.'))
    const from = request.socket.remoteAddress ?? 'unknown'
    if (!(await isWithin(this.lookedAt, from)))
      return send(response, 429, messagePage('Too many codes at once. Try again in a moment.'), { 'Retry-After': '1' })
    if (!this.pickUp.isCode(code)) {
      if (!(await isWithin(this.wrong, from))) await delay(this.heldBackMs)
      return send(response, 403, codePage(this.pickUp.isOpen ? 'That is not the code.' : 'This pick-up is over.'))
    }
    if (asked !== null) return void response.writeHead(303, { Location: `/c/${this.pickUp.code}` }).end()
    if (index === undefined || index === '') return send(response, 200, filesPage(this.pickUp))
    const file = /^\d{1,3}$/.test(index) ? this.pickUp.files[Number(index)] : undefined
    if (!file) return send(response, 404, messagePage('There is no such file.'))
    serve(request, response, file, url.searchParams.has('save'))
  }
}

/** Counts one more of `key`; whether that is still within the limit. */
async function isWithin(limiter: RateLimiterMemory, key: string): Promise<boolean> {
  return limiter.consume(key).then(
    () => true,
    () => false,
  )
}

function send(
  response: ServerResponse,
  status: number,
  { html, policy }: Page,
  more: Record<string, string> = {},
): void {
  response
    .writeHead(status, {
      ...more,
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': policy,
      'Cache-Control': 'no-store',
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
    })
    .end(html)
}

/** A file or a part of it: phones ask for parts. */
function serve(request: IncomingMessage, response: ServerResponse, file: PickUp['files'][number], save: boolean): void {
  const range = /^bytes=(\d+)-(\d*)$/.exec(request.headers.range ?? '')
  const from = range ? Number(range[1]) : 0
  const to = range?.[2] ? Math.min(Number(range[2]), file.sizeBytes - 1) : file.sizeBytes - 1
  if (from > to && file.sizeBytes > 0)
    return void response.writeHead(416, { 'Content-Range': `bytes */${file.sizeBytes}` }).end()
  response.writeHead(range ? 206 : 200, {
    'Content-Type': file.type,
    'Content-Length': to - from + 1,
    'Accept-Ranges': 'bytes',
    'Content-Disposition': `${save ? 'attachment' : 'inline'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'Cache-Control': 'no-store',
    'X-Content-Type-Options': 'nosniff',
    'Content-Security-Policy': "default-src 'none'; media-src 'self'; style-src 'unsafe-inline'; sandbox",
    ...(range && { 'Content-Range': `bytes ${from}-${to}/${file.sizeBytes}` }),
  })
  if (request.method === 'HEAD' || file.sizeBytes === 0) return void response.end()
  const stream = createReadStream(file.path, { start: from, end: to })
  stream.on('error', () => response.destroy())
  stream.pipe(response)
}
