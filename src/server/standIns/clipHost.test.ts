import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { beforeEach, expect, test } from 'vitest'
import { clipAt, clipMonths, clipsOf, setClipFault } from './clipHost'

beforeEach(() => setClipFault('none'))

const bytesOf = async (body: ReadableStream<Uint8Array>) => new Uint8Array(await new Response(body).arrayBuffer())

test('lists clips by month, newest first, each with an address that delivers its file to the byte', async () => {
  const months = clipMonths()
  expect(months).toEqual([...months].sort().reverse())
  for (const month of months) {
    const clips = await clipsOf(month)
    expect(clips.length).toBeGreaterThan(0)
    for (const { address, recordedAt, sizeBytes } of clips) {
      expect(recordedAt.slice(0, 7)).toBe(month)
      const found = await clipAt(address)
      expect(found && (await bytesOf(found.body)).length).toBe(sizeBytes)
    }
  }
  const [winch] = await clipsOf('2026-11')
  const found = await clipAt(winch?.address ?? '')
  const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
  expect(found && hash(await bytesOf(found.body))).toBe(hash(await readFile('public/demo/field-winch.mp4')))
})

test('gives nothing for addresses and months that it does not have, whatever they look like', async () => {
  for (const address of [
    '',
    'https://clips.example/',
    'https://clips.example/../../package.json',
    '/etc/passwd',
    'https://other.example/heat-three',
  ])
    expect(await clipAt(address)).toBeNull()
  for (const month of ['', '2026', '2026-12', '../']) expect(await clipsOf(month)).toEqual([])
})

test('breaks off half-way where it is set to, saying the whole size', async () => {
  setClipFault('breaks-off')
  const found = await clipAt('https://clips.example/dawn-on-the-field')
  const size = found?.clip.sizeBytes ?? 0
  expect(found && (await bytesOf(found.body)).length).toBe(Math.floor(size / 2))
})
