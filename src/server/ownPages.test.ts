import { existsSync, readdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { NextRequest } from 'next/server'
import { proxy } from '../proxy'
import { currentPickUp } from './pickUp/current'
import { isFromOwnPages, isOwnHost } from './ownPages'

const PORT = '4680'
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE'] as const
type Method = (typeof METHODS)[number]

const API = resolve('src/app/api')
const ROUTES = readdirSync(API, { recursive: true, encoding: 'utf8' })
  .filter((path) => path.endsWith('route.ts'))
  .sort()

beforeEach(() => vi.stubEnv('PORT', PORT))
afterEach(() => vi.unstubAllEnvs())

const own = { host: `localhost:${PORT}`, origin: `http://localhost:${PORT}`, 'sec-fetch-site': 'same-origin' }
const FOREIGN: Record<string, Record<string, string>> = {
  'a name rebound to this machine': {
    host: `evil.example:${PORT}`,
    origin: `http://evil.example:${PORT}`,
    'sec-fetch-site': 'same-origin',
  },
  'a page from elsewhere': { ...own, origin: 'http://evil.example', 'sec-fetch-site': 'cross-site' },
  'a page without an origin': { ...own, origin: 'null' },
  'another port of this machine': { ...own, origin: 'http://localhost:5000', 'sec-fetch-site': 'same-site' },
  'another port named': { host: 'localhost:5000', origin: 'http://localhost:5000', 'sec-fetch-site': 'same-origin' },
  'no browser at all': { host: own.host },
  'an origin that is no address': { ...own, origin: '://' },
}

const request = (method: Method, headers: Record<string, string>, body?: BodyInit) =>
  new Request(`http://localhost:${PORT}/api/x?name=a.mp4`, { method, headers, body })

describe('every route answers only this application’s own pages', () => {
  test('there are routes', () => expect(ROUTES.length).toBeGreaterThanOrEqual(7))

  test.each(ROUTES)('%s', async (path) => {
    const route = (await import(/* @vite-ignore */ join(API, path))) as Partial<
      Record<Method, (request: Request) => Promise<Response>>
    >
    const methods = METHODS.filter((method) => route[method])
    expect(methods.length).toBeGreaterThan(0)
    for (const method of methods)
      for (const [who, headers] of Object.entries(FOREIGN)) {
        const answer = await route[method]?.(request(method, headers))
        expect([method, who, answer?.status, await answer?.text()]).toEqual([method, who, 403, ''])
      }
    expect(currentPickUp()).toBeNull()
  })

  test('and so do pages', () => {
    const page = (headers: Record<string, string>, method = 'GET') =>
      proxy(new NextRequest(`http://localhost:${PORT}/`, { headers, method })).status
    expect(page({ host: `localhost:${PORT}` })).toBe(200)
    expect(page({ host: `evil.example:${PORT}` })).toBe(403)
    expect(page({ host: `localhost:${PORT}` }, 'POST')).toBe(405)
  })
})

test('own names are the loopback ones with the own port, and those that were named at the start', () => {
  const environment = { PORT, BRIMBLE_HOSTS: 'studio.example:8080, Edit.example' }
  const isOwn = (host: string | null) => isOwnHost(host, environment)
  expect(
    [
      `localhost:${PORT}`,
      `LOCALHOST:${PORT}`,
      `127.0.0.1:${PORT}`,
      `[::1]:${PORT}`,
      'studio.example:8080',
      'edit.example',
      'edit.example:9000',
    ].map(isOwn),
  ).not.toContain(false)
  expect(
    [
      'localhost',
      'localhost:80',
      `evil.example:${PORT}`,
      `localhost:${PORT}@evil.example`,
      `localhost.evil.example:${PORT}`,
      'studio.example',
      '',
      null,
      ' ',
      '[::1',
      `a/localhost:${PORT}`,
    ].map(isOwn),
  ).not.toContain(true)
  expect(isOwnHost('localhost', { PORT: '80' })).toBe(true)
  // A server that does not know its port answers nobody.
  expect(isOwnHost(`localhost:${PORT}`, {})).toBe(false)
})

test('own pages are answered', () => {
  const asked = (method: Method, headers: Record<string, string>) => isFromOwnPages(request(method, headers))
  expect(asked('POST', own)).toBe(true)
  expect(asked('GET', { host: own.host, 'sec-fetch-site': 'same-origin' })).toBe(true)
  expect(asked('GET', { host: own.host })).toBe(false)
})

test('a body is not held once it is too large, however it is sent', async () => {
  vi.stubEnv('BRIMBLE_REDIS', 'redis://127.0.0.1:1')
  const { PUT } = await import('../app/api/stand-in/clips/fault/route')
  let sent = 0
  const endless = new ReadableStream<Uint8Array>({
    pull: (controller) => controller.enqueue(new Uint8Array(((sent += 65_536), 65_536)).fill(32)),
  })
  const answer = await PUT(
    new Request(`http://localhost:${PORT}/`, {
      method: 'PUT',
      headers: own,
      body: endless,
      duplex: 'half',
    } as RequestInit),
  )
  expect(answer.status).toBe(413)
  expect(sent).toBeLessThan(1_000_000)
  const { POST } = await import('../app/api/render-nodes/route')
  expect((await POST(request('POST', { ...own, 'content-length': '300000000' }, ' '))).status).toBe(413)
  for (const job of [{ id: '../x' }, { name: '../../escaped' }, { name: 'CON' }, {}]) {
    const whole = { id: 'a', highlight: 'h', name: 'n', frames: 1, file: {}, at: 0, text: '{}', ...job }
    expect((await POST(request('POST', own, JSON.stringify(whole)))).status).toBe(400)
  }
  expect(existsSync('/tmp/escaped')).toBe(false)
})
