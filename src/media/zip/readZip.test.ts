import { BlobWriter, TextReader, ZipWriter, configure } from '@zip.js/zip.js'
import { beforeAll, describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { readZip, type OpenZip } from './readZip'

beforeAll(() => configure({ useWebWorkers: false }))

const LIST = '{"brimble":"bundle"}'

async function zipOf(
  files: Record<string, string>,
  options: { password?: string; level?: number } = {},
): Promise<Uint8Array<ArrayBuffer>> {
  const writer = new ZipWriter(new BlobWriter(), options)
  for (const [name, text] of Object.entries(files)) await writer.add(name, new TextReader(text))
  return new Uint8Array(await (await writer.close()).arrayBuffer())
}

const readAll = async (open: OpenZip) => ({
  list: await open.text('bundle.json', 1000),
  media: await (await open.blob('media/1.mp4', 2000)).text(),
})
const openAll = (zip: Uint8Array<ArrayBuffer>, most = 10) => readZip(new Blob([zip]), most, readAll)

/** A zip of so many empty files, written by hand after the format's description (APPNOTE 4.3). */
function zipOfEmpty(count: number, told = count): Uint8Array<ArrayBuffer> {
  const name = (n: number) => new TextEncoder().encode(`media/${String(n).padStart(6, '0')}.mp4`)
  const [local, central] = [30 + name(0).length, 46 + name(0).length]
  const bytes = new Uint8Array(count * (local + central) + 22)
  const view = new DataView(bytes.buffer)
  for (let n = 0; n < count; n++) {
    const [at, of] = [n * local, count * local + n * central]
    view.setUint32(at, 0x04034b50, true)
    view.setUint16(at + 26, name(n).length, true)
    bytes.set(name(n), at + 30)
    view.setUint32(of, 0x02014b50, true)
    view.setUint16(of + 28, name(n).length, true)
    view.setUint32(of + 42, at, true)
    bytes.set(name(n), of + 46)
  }
  const end = count * (local + central)
  view.setUint32(end, 0x06054b50, true)
  // More than sixteen bits hold: as many as the reader is to look at is enough.
  for (const field of [8, 10]) view.setUint16(end + field, Math.min(told, 65_534), true)
  view.setUint32(end + 12, count * central, true)
  view.setUint32(end + 16, count * local, true)
  return bytes
}

describe('a zip', () => {
  const media = Array.from({ length: 2000 }, (_, i) => String.fromCharCode(97 + ((i * i) % 23))).join('')
  const files = { 'bundle.json': LIST, 'media/1.mp4': media }

  it('is read: text, and files of the size they are to have', async () => {
    expect(await openAll(await zipOf(files))).toEqual({ ok: true, value: { list: LIST, media } })
  })

  it.each([
    ['what lacks a file', { 'bundle.json': LIST }, 'missing-entry'],
    ['a file of another size', { ...files, 'media/1.mp4': 'short' }, 'damaged'],
    ['a list that is too long', { ...files, 'bundle.json': 'x'.repeat(1001) }, 'too-large'],
    ['a name that leads out of a folder', { ...files, '../../home/notes.txt': 'x' }, 'bad-name'],
    ['a name from the root', { ...files, '/etc/hosts': 'x' }, 'bad-name'],
    ['what unpacks to more than a hundred times its size', { ...files, 'media/2.mp4': 'a'.repeat(3_000_000) }, 'bomb'],
    [
      'more files than there may be',
      { ...files, ...Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`media/${i + 2}.mp4`, 'x'])) },
      'too-many-entries',
    ],
  ])('with %s is refused', async (_what, made, reason) => {
    expect(await openAll(await zipOf(made))).toMatchObject({ ok: false, reason })
  })

  it('that asks for a password, or is none, is refused', async () => {
    expect(await openAll(await zipOf(files, { password: 'lift' }))).toMatchObject({ ok: false, reason: 'damaged' })
    for (const bytes of [
      new Uint8Array(0),
      new Uint8Array(5000),
      new TextEncoder().encode('PK\u0003\u0004 and nothing else'),
    ])
      expect(await openAll(bytes)).toMatchObject({ ok: false, reason: 'not-a-zip' })
  })

  it('of a hundred thousand entries is given up at the first that is too many', async () => {
    expect(await openAll(zipOfEmpty(100_000), 50)).toMatchObject({ ok: false, reason: 'too-many-entries' })
    // Of one that says it has few, the others are not looked at.
    expect(await openAll(zipOfEmpty(100_000, 10), 50)).toMatchObject({ ok: false, reason: 'missing-entry' })
  })

  it('what reading it throws is told as damage', async () => {
    expect(await readZip(new Blob([await zipOf(files)]), 10, () => Promise.reject(new Error('no such thing')))).toEqual(
      { ok: false, reason: 'damaged', detail: 'no such thing' },
    )
  })

  it(`that was cut off or has other bytes in it is read as it was or refused, never as something else (seed ${SEED})`, async () => {
    const random = seeded(SEED)
    const whole = await zipOf(files, { level: 0 })
    let refused = 0
    for (let n = 0; n < 300; n++) {
      const bytes = whole.slice(0, n % 3 === 0 ? random.integer(0, whole.length - 1) : undefined)
      if (n % 3 > 0)
        for (let k = random.integer(1, 4); k > 0; k--)
          bytes[random.integer(0, bytes.length - 1)] = random.integer(0, 255)
      const read = await openAll(bytes)
      if (!read.ok) refused++
      else expect(read.value).toEqual({ list: LIST, media })
    }
    expect(refused).toBeGreaterThan(150)
  })
})
