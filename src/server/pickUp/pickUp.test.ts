import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import type { ReadableStream } from 'node:stream/web'
import { afterEach, expect, test } from 'vitest'
import { PickUpServer } from './pickUpServer'

const body = (bytes: Uint8Array | string) =>
  new Blob([bytes as BlobPart]).stream() as unknown as ReadableStream<Uint8Array>
const FILM = Uint8Array.from({ length: 100_000 }, (_, i) => i % 251)

let server: PickUpServer | null = null
const started = async (...limits: Parameters<typeof PickUpServer.start>) =>
  (server = await PickUpServer.start(...limits))
const get = (path: string, headers: Record<string, string> = {}) =>
  fetch(`http://127.0.0.1:${server?.port}${path}`, { headers, redirect: 'manual' })

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
  expect((await get(`/c/${pickUp.code}/0?save`)).headers.get('content-disposition')).toMatch(
    /^attachment; filename\*=UTF-8''Last%20%3Cgate%3E/,
  )
})

test('without the code nothing is listed; whoever gives wrong ones is answered late and keeps nobody out', async () => {
  const { pickUp } = await started(undefined, 300)
  await pickUp.add('secret.mp4', body(FILM))
  expect(await (await get('/')).text()).not.toContain('secret')
  for (let n = 0; n < 10; n++) {
    const wrong = await get('/c/AAAAAAAA/0')
    expect(wrong.status).toBe(403)
    expect(await wrong.text()).not.toContain('secret')
  }
  let answered = false
  const late = get('/c/AAAAAAAA').then((response) => ((answered = true), response.status))
  expect((await get(`/c/${pickUp.code}`)).status).toBe(200)
  expect(answered).toBe(false)
  expect(await late).toBe(403)
})

test('a flood of wrong codes is not looked at, and the right one is a second later', async () => {
  const { pickUp } = await started(undefined, 0)
  const flood = await Promise.all(Array.from({ length: 200 }, () => get('/c/AAAAAAAA').then((r) => r.status)))
  expect(flood.filter((status) => status === 429).length).toBeGreaterThan(100)
  await expect.poll(async () => (await get(`/c/${pickUp.code}`)).status, { timeout: 3000 }).toBe(200)
})

test('a name that was cut through a letter is handed over all the same', async () => {
  const { pickUp } = await started()
  expect(await pickUp.add(`glide ${'\u{1F6E9}'.charAt(0)}.mp4`, body(FILM))).toEqual({ ok: true })
  const saved = await get(`/c/${pickUp.code}/0?save`)
  expect([saved.status, saved.headers.get('content-disposition')]).toEqual([
    200,
    "attachment; filename*=UTF-8''glide%20%EF%BF%BD.mp4",
  ])
})

/** A process that makes a pick-up's folder and says where; `end`: what it does then. */
async function folderOf(end: string): Promise<{ folder: string; gone: Promise<unknown> }> {
  const script = `import { makeTemporaryFolder } from ${JSON.stringify(resolve('unattended/temporaryFolders.mjs'))}; import { writeFileSync } from 'node:fs'
    process.on('SIGTERM', () => process.exit(143)); const folder = makeTemporaryFolder('brimble-pick-up'); writeFileSync(folder + '/film', 'x'); console.log(folder); ${end}`
  const child = spawn(process.execPath, ['--input-type=module', '-e', script], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, TMPDIR: place },
  })
  const gone = new Promise((done) => child.once('exit', done))
  const folder = await new Promise<string>((done) => child.stdout.once('data', (text) => done(String(text).trim())))
  if (end.includes('setInterval')) child.kill(end.includes('term') ? 'SIGTERM' : 'SIGKILL')
  return { folder, gone }
}
const place = mkdtempSync(join(tmpdir(), 'brimble-test-'))

test('no copy stays behind: not at an exit, not at SIGTERM, and what a killed server leaves goes at the next start', async () => {
  for (const end of ['process.exit(1)', 'setInterval(() => "term", 1000)']) {
    const { folder, gone } = await folderOf(end)
    await gone
    expect([end, existsSync(folder)]).toEqual([end, false])
  }
  const killed = await folderOf('setInterval(() => {}, 1000)')
  await killed.gone
  expect(existsSync(killed.folder)).toBe(true)
  const next = await folderOf('process.exit(0)')
  await next.gone
  expect(readdirSync(place)).toEqual([])
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
  for (const path of [
    `/c/${pickUp.code}/../../../etc/passwd`,
    `/c/${pickUp.code}/..%2f..%2fetc%2fpasswd`,
    `/c/${pickUp.code}/-1`,
    `/c/${pickUp.code}/1`,
    `/c/${pickUp.code}/0x0`,
    '/etc/passwd',
    '/api/pick-up',
  ])
    expect([404, 403]).toContain((await get(path)).status)
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
