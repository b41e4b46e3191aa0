import { existsSync } from 'node:fs'
import { dirname } from 'node:path'
import type { ReadableStream } from 'node:stream/web'
import { afterEach, expect, test } from 'vitest'
import { isFromOurPages } from '../fromOurPages'
import { PickUpServer } from './pickUpServer'

const body = (bytes: Uint8Array | string) => new Blob([bytes as BlobPart]).stream() as unknown as ReadableStream<Uint8Array>
const FILM = Uint8Array.from({ length: 100_000 }, (_, i) => i % 251)

let server: PickUpServer | null = null
const started = async (...limits: Parameters<typeof PickUpServer.start>) => (server = await PickUpServer.start(...limits))
const get = (path: string, headers: Record<string, string> = {}) => fetch(`http://127.0.0.1:${server?.port}${path}`, { headers, redirect: 'manual' })

afterEach(async () => {
  await server?.close()
  server = null
})

test('whoever has the code gets the list and each file, whole or in part; names are text, not markup', async () => {
  const { pickUp } = await started()
  expect(await pickUp.add('Last <gate> & "co" tall 1.mp4', body(FILM))).toEqual({ ok: true })
  const list = await get(`/c/${pickUp.code}`)
  expect(list.status).toBe(200)
  const html = await list.text()
  expect(html).toContain('Last &#60;gate&#62; &#38; &#34;co&#34; tall 1.mp4')
  expect(html).not.toContain('<gate>')
  expect((await get(`/?code=${pickUp.code.toLowerCase()}`)).headers.get('location')).toBe(`/c/${pickUp.code}`)
  const whole = await get(`/c/${pickUp.code}/0`)
  expect(new Uint8Array(await whole.arrayBuffer())).toEqual(FILM)
  expect(whole.headers.get('content-type')).toBe('video/mp4')
  const part = await get(`/c/${pickUp.code}/0`, { range: 'bytes=1000-1999' })
  expect([part.status, part.headers.get('content-range')]).toEqual([206, 'bytes 1000-1999/100000'])
  expect(new Uint8Array(await part.arrayBuffer())).toEqual(FILM.slice(1000, 2000))
  expect((await get(`/c/${pickUp.code}/0`, { range: 'bytes=100000-' })).status).toBe(416)
  expect((await get(`/c/${pickUp.code}/0?save`)).headers.get('content-disposition')).toMatch(/^attachment; filename\*=UTF-8''Last%20%3Cgate%3E/)
})

test('without the code nothing is listed; wrong codes are counted and then refused for a while, the right one too', async () => {
  const { pickUp } = await started()
  await pickUp.add('secret.mp4', body(FILM))
  expect(await (await get('/')).text()).not.toContain('secret')
  for (let n = 0; n < 10; n++) {
    const wrong = await get('/c/AAAAAAAA/0')
    expect(wrong.status).toBe(403)
    expect(await wrong.text()).not.toContain('secret')
  }
  expect((await get(`/c/${pickUp.code}`)).status).toBe(429)
})

test('codes are eight letters of thirty-one, and never twice the same', async () => {
  const codes = new Set<string>()
  for (let n = 0; n < 20; n++) {
    codes.add((await started()).pickUp.code)
    await server?.close()
  }
  expect(codes.size).toBe(20)
  for (const code of codes) expect(code).toMatch(/^[A-HJKMNP-Z2-9]{8}$/)
})

test('paths lead nowhere else, other methods do nothing', async () => {
  const { pickUp } = await started()
  await pickUp.add('a.mp4', body('a'))
  for (const path of [`/c/${pickUp.code}/../../../etc/passwd`, `/c/${pickUp.code}/..%2f..%2fetc%2fpasswd`, `/c/${pickUp.code}/-1`, `/c/${pickUp.code}/1`, `/c/${pickUp.code}/0x0`, '/etc/passwd', '/api/pick-up']) expect([404, 403]).toContain((await get(path)).status)
  expect((await fetch(`http://127.0.0.1:${server?.port}/c/${pickUp.code}`, { method: 'DELETE' })).status).toBe(405)
})

test('what is too large, or of a kind that is not made here, is not taken, and nothing of it is left', async () => {
  const { pickUp } = await started({ mostBytes: 150_000, lastsMs: 60_000 })
  expect(await pickUp.add('a.mp4', body(FILM))).toEqual({ ok: true })
  expect(await pickUp.add('b.mp4', body(FILM))).toEqual({ ok: false, reason: 'too-large' })
  expect(await pickUp.add('page.html', body('<script>'))).toEqual({ ok: false, reason: 'bad-type' })
  expect(pickUp.files).toHaveLength(1)
})

test('it ends by itself and by hand: then the code is no code, the files are gone and nobody answers', async () => {
  const { pickUp } = await started({ mostBytes: 1e6, lastsMs: 120 })
  await pickUp.add('a.mp4', body(FILM))
  const folder = dirname(pickUp.files[0]?.path ?? '')
  expect(existsSync(folder)).toBe(true)
  await new Promise((resolve) => setTimeout(resolve, 400))
  expect(existsSync(folder)).toBe(false)
  expect(pickUp.isCode(pickUp.code)).toBe(false)
  expect(await pickUp.add('b.mp4', body(FILM))).toEqual({ ok: false, reason: 'closed' })
  await expect(get(`/c/${pickUp.code}`)).rejects.toThrow()
})

test('only the application’s own pages can have the server do something', () => {
  const asked = (headers: Record<string, string>, method = 'POST') => isFromOurPages(new Request('http://localhost:4680/api/pick-up', { method, headers: { host: 'localhost:4680', ...headers } }))
  expect(asked({ origin: 'http://localhost:4680', 'sec-fetch-site': 'same-origin' })).toBe(true)
  expect(asked({ origin: 'http://elsewhere.example', 'sec-fetch-site': 'cross-site' })).toBe(false)
  expect(asked({ origin: 'http://elsewhere.example' })).toBe(false)
  expect(asked({})).toBe(false)
  expect(asked({ 'sec-fetch-site': 'same-origin' }, 'GET')).toBe(true)
})
