import { describe, expect, it } from 'vitest'
import { toEntry, type Entry } from './entry'
import { CHANNEL, note, nullOnError, quietly } from './note'
import { MAX_ENTRIES, ringAsText, withEntry } from './ring'

const AT = new Date('2026-11-30T08:00:00.000Z')

describe('an entry', () => {
  it('names no file, no recording and no address', () => {
    const texts = [
      new Error('“Evening at Heron Ridge.mp4” cannot be decoded'),
      new Error("Failed to open 'C:\\Users\\wren\\my flight.mov'"),
      new TypeError('Failed to fetch blob:http://localhost:4600/3f2c'),
      new Error('ridge cup/evening 2.mkv is gone'),
      'https://clips.example/last-gate was refused',
    ].map((error) => toEntry('a test', error, AT).message)
    expect(texts.join('\n')).not.toMatch(/Heron|wren|flight|evening|ridge|3f2c|last-gate/i)
    expect(texts[0]).toBe('“…” cannot be decoded')
  })

  it('keeps what a message says beside names, and no more of a long one than fits', () => {
    const messageOf = (message: string) => toEntry('a test', new Error(message), AT).message
    expect(messageOf('Math.max of 3 and x.y is too large')).toBe('Math.max of 3 and x.y is too large')
    expect(messageOf('ENOENT: no such file, open /media/wren/flights/ridge')).toBe('ENOENT: no such file, open (file)')
    expect(messageOf('one word after another '.repeat(20_000)).length).toBe(300)
  })

  it('keeps the kind of error and where it came from, without the machine’s address', () => {
    const error = new RangeError('too long')
    error.stack =
      'RangeError: too long\n    at trim (http://localhost:4600/_next/static/chunks/a1.js:1:20)\n    at file:///media/wren/x.mjs:3:1'
    expect(toEntry('a test', error, AT)).toMatchObject({
      at: '2026-11-30T08:00:00.000Z',
      where: 'a test',
      name: 'RangeError',
      message: 'too long',
      stack: 'at trim (/_next/static/chunks/a1.js:1:20)\nat x.mjs:3:1',
    })
  })
})

describe('the ring', () => {
  const entry = (n: number): Entry => ({ ...toEntry('a test', new Error(String(n)), AT), id: String(n) })

  it('forgets the oldest, and keeps nothing twice', () => {
    const entries = Array.from({ length: MAX_ENTRIES + 5 }, (_, n) => entry(n)).reduce<Entry[]>(withEntry, [])
    expect(entries.map((e) => e.id)).toEqual(Array.from({ length: MAX_ENTRIES }, (_, n) => String(n + 5)))
    expect(withEntry(entries, entry(50))).toHaveLength(MAX_ENTRIES)
  })

  it('is told with the newest first', () => {
    expect(ringAsText([entry(1), entry(2)]).indexOf('Error: 2')).toBeLessThan(
      ringAsText([entry(1), entry(2)]).indexOf('Error: 1'),
    )
  })
})

it('what was stopped on purpose, or is expected, is not noted; the rest is, and work goes on', async () => {
  const told: Entry[] = []
  const channel = new BroadcastChannel(CHANNEL)
  const all = new Promise<void>((resolve) => {
    channel.onmessage = (event) => {
      told.push((event as unknown as MessageEvent<Entry>).data)
      if (told.length === 2) resolve()
    }
  })
  note('stopped', new DOMException('stopped', 'AbortError'))
  expect(quietly('a part', 'NotFoundError')(new DOMException('gone', 'NotFoundError'))).toBeUndefined()
  expect(nullOnError('a picture')(new Error('broken'))).toBeNull()
  note('a sound', 'a string')
  await all
  channel.close()
  expect(told.map((e) => [e.where, e.name, e.message])).toEqual([
    ['a picture', 'Error', 'broken'],
    ['a sound', 'string', 'a string'],
  ])
})
