import { createReadStream } from 'node:fs'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { networkInterfaces } from 'node:os'
import type { AddressInfo } from 'node:net'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { codePage, filesPage, messagePage } from './page'
import { PickUp, USUAL_LIMITS, type PickUpLimits } from './pickUp'

/** So many wrong codes in ten minutes, from one address and from all: guessing one would take longer than the sun has. */
const WRONG_FROM_ONE = { points: 10, duration: 600 }
const WRONG_FROM_ALL = { points: 200, duration: 600 }

/**
 * A server of its own on the local network that is there only while something lies ready: it knows one code, its page and its files, and nothing else of
 * the application. Without the code it lists nothing.
 */
export class PickUpServer {
  private readonly wrongFromOne = new RateLimiterMemory(WRONG_FROM_ONE)
  private readonly wrongFromAll = new RateLimiterMemory(WRONG_FROM_ALL)

  private constructor(readonly pickUp: PickUp, private readonly server: Server) {
    server.on('request', (request, response) => void this.answer(request, response).catch(() => response.destroy()))
  }

  static async start(limits: PickUpLimits = USUAL_LIMITS): Promise<PickUpServer> {
    const server = createServer()
    const pickUp = await PickUp.open(limits, () => {
      server.close()
      server.closeAllConnections()
    })
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject)
      server.listen(0, '0.0.0.0', resolve)
    })
    return new PickUpServer(pickUp, server)
  }

  get port(): number {
    return (this.server.address() as AddressInfo | null)?.port ?? 0
  }

  /** Where it can be reached: this machine's addresses on its networks, else itself alone. */
  addresses(): string[] {
    const found = Object.values(networkInterfaces()).flatMap((all) => all ?? []).filter((a) => a.family === 'IPv4' && !a.internal)
    return (found.length > 0 ? found.map((a) => a.address) : ['127.0.0.1']).map((host) => `http://${host}:${this.port}`)
  }

  close(): Promise<void> {
    return this.pickUp.close()
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (request.method !== 'GET' && request.method !== 'HEAD') return send(response, 405, messagePage('That cannot be done here.'))
    const url = new URL(request.url ?? '/', 'http://pick-up')
    const asked = url.searchParams.get('code')
    const [, kind, code = '', index] = asked === null ? url.pathname.split('/') : ['', 'c', asked]
    if (url.pathname === '/' && asked === null) return send(response, 200, codePage(''))
    if (kind !== 'c') return send(response, 404, messagePage('There is nothing here.'))
    const from = request.socket.remoteAddress ?? 'unknown'
    if (await this.isBlocked(from)) return send(response, 429, messagePage('Too many wrong codes. Wait ten minutes, then try again.'))
    if (!this.pickUp.isCode(code)) {
      await Promise.allSettled([this.wrongFromOne.consume(from), this.wrongFromAll.consume('all')])
      return send(response, 403, codePage(this.pickUp.isOpen ? 'That is not the code.' : 'This pick-up is over.'))
    }
    if (asked !== null) return void response.writeHead(303, { Location: `/c/${this.pickUp.code}` }).end()
    if (index === undefined || index === '') return send(response, 200, filesPage(this.pickUp))
    const file = /^\d{1,3}$/.test(index) ? this.pickUp.files[Number(index)] : undefined
    if (!file) return send(response, 404, messagePage('There is no such file.'))
    serve(request, response, file, url.searchParams.has('save'))
  }

  private async isBlocked(from: string): Promise<boolean> {
    const [one, all] = await Promise.all([this.wrongFromOne.get(from), this.wrongFromAll.get('all')])
    return (one?.remainingPoints ?? 1) <= 0 || (all?.remainingPoints ?? 1) <= 0
  }
}

function send(response: ServerResponse, status: number, { html, policy }: { html: string; policy: string }): void {
  response.writeHead(status, { 'Content-Type': 'text/html; charset=utf-8', 'Content-Security-Policy': policy, 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff', 'Referrer-Policy': 'no-referrer' }).end(html)
}

/** A file or a part of it: phones ask for parts. */
function serve(request: IncomingMessage, response: ServerResponse, file: PickUp['files'][number], save: boolean): void {
  const range = /^bytes=(\d+)-(\d*)$/.exec(request.headers.range ?? '')
  const from = range ? Number(range[1]) : 0
  const to = range?.[2] ? Math.min(Number(range[2]), file.sizeBytes - 1) : file.sizeBytes - 1
  if (from > to && file.sizeBytes > 0) return void response.writeHead(416, { 'Content-Range': `bytes */${file.sizeBytes}` }).end()
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
