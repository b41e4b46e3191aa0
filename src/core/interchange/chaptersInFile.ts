import type { Micros } from '../time/micros'
import { cleanLabel, MAX_MARKS, type Mark } from './mark'

/** Reads up to `length` bytes of a file from `offset` on; fewer at its end. */
export type ReadBytes = (offset: number, length: number) => Promise<Uint8Array>

/** A chapter list is never larger. */
const MAX_BYTES = 4_000_000

/** Boxes or elements looked at before giving up: no honest file comes near. */
const MAX_STEPS = 100_000

/**
 * Chapters that a recorder has written into an MP4 or Matroska file, in order; none when there are none or they
 * cannot be read.
 */
export async function chaptersInFile(read: ReadBytes, sizeBytes: number): Promise<Mark[]> {
  try {
    const start = await read(0, 12)
    const marks = isMatroska(start) ? await matroskaChapters(read, sizeBytes) : await mp4Chapters(read, sizeBytes)
    return marks.slice(0, MAX_MARKS).sort((a, b) => a.inMicros - b.inMicros)
  } catch (error) {
    if (error instanceof RangeError) return []
    throw error
  }
}

const text = (bytes: Uint8Array) => cleanLabel(new TextDecoder().decode(bytes))

function view(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
}

interface Span {
  from: number
  to: number
}

/** Finds the first box of a type among those in `span` (ISO/IEC 14496-12, 4.2). */
async function findBox(read: ReadBytes, { from, to }: Span, type: string): Promise<Span | null> {
  let at = from
  for (let steps = 0; at + 8 <= to && steps < MAX_STEPS; steps++) {
    const head = await read(at, 16)
    if (head.length < 8) return null
    const large = isLarge(head)
    const size = sizeOfBox(head, to - at)
    if (size < 8) return null
    if (String.fromCharCode(...head.subarray(4, 8)) === type)
      return { from: at + (large ? 16 : 8), to: Math.min(to, at + size) }
    at += size
  }
  return null
}

/** The chapter list box `chpl` in `moov/udta`: starts in units of 100 ns, each with a short title. */
async function mp4Chapters(read: ReadBytes, sizeBytes: number): Promise<Mark[]> {
  let span: Span | null = { from: 0, to: sizeBytes }
  for (const type of ['moov', 'udta', 'chpl']) span = span && (await findBox(read, span, type))
  if (!span || span.to - span.from > MAX_BYTES) return []
  const bytes = await read(span.from, span.to - span.from)
  const v = view(bytes)
  const long = v.getUint8(0) === 1
  const count = long ? v.getUint8(8) : v.getUint8(4)
  const marks: Mark[] = []
  let at = long ? 9 : 5
  for (let i = 0; i < count; i++) {
    const length = v.getUint8(at + 8)
    marks.push({
      inMicros: Number(v.getBigUint64(at) / 10n),
      outMicros: null,
      label: text(bytes.subarray(at + 9, at + 9 + length)),
    })
    at += 9 + length
  }
  return marks
}

const EBML = 0x1a45dfa3
const SEGMENT = 0x18538067
const SEEK_HEAD = 0x114d9b74
const SEEK = 0x4dbb
const SEEK_ID = 0x53ab
const SEEK_POSITION = 0x53ac
const CLUSTER = 0x1f43b675
const CHAPTERS = 0x1043a770
const EDITION = 0x45b9
const CHAPTER = 0xb6
const CHAPTER_START = 0x91
const CHAPTER_END = 0x92
const CHAPTER_HIDDEN = 0x98
const CHAPTER_DISPLAY = 0x80
const CHAPTER_STRING = 0x85

function isMatroska(start: Uint8Array): boolean {
  return start.length >= 4 && view(start).getUint32(0) === EBML
}

interface Element extends Span {
  id: number
}

/** The element whose head begins at `at` in `bytes` (RFC 8794); its span is counted from `bytes`' own start. */
function elementAt(bytes: Uint8Array, at: number): Element | null {
  const first = bytes[at]
  if (first === undefined || first === 0) return null
  const idLength = Math.clz32(first) - 23
  let id = 0
  for (let i = 0; i < idLength; i++) id = id * 256 + (bytes[at + i] ?? 0)
  const sizeAt = at + idLength
  const lead = bytes[sizeAt]
  if (lead === undefined || lead === 0) return null
  const sizeLength = Math.clz32(lead) - 23
  let size = lead & (0xff >> sizeLength)
  let unknown = size === 0xff >> sizeLength
  for (let i = 1; i < sizeLength; i++) {
    size = size * 256 + (bytes[sizeAt + i] ?? 0)
    unknown &&= bytes[sizeAt + i] === 0xff
  }
  const from = sizeAt + sizeLength
  return { id, from, to: unknown ? Infinity : from + size }
}

function* elementsIn(bytes: Uint8Array): Generator<{ id: number; data: Uint8Array }> {
  for (let at = 0; at < bytes.length;) {
    const element = elementAt(bytes, at)
    if (!element || element.to > bytes.length || element.to <= at) return
    yield { id: element.id, data: bytes.subarray(element.from, element.to) }
    at = element.to
  }
}

function unsigned(data: Uint8Array): number {
  return data.reduce((n, byte) => n * 256 + byte, 0)
}

async function matroskaChapters(read: ReadBytes, sizeBytes: number): Promise<Mark[]> {
  const head = elementAt(await read(0, 64), 0)
  if (!head || head.to > sizeBytes) return []
  const segment = elementAt(await read(head.to, 16), 0)
  if (!segment || segment.id !== SEGMENT) return []
  const start = head.to + segment.from
  const chapters = await findChapters(read, start, Math.min(sizeBytes, head.to + segment.to))
  if (!chapters || chapters.to - chapters.from > MAX_BYTES) return []
  return chaptersOf(await read(chapters.from, chapters.to - chapters.from))
}

/** Walks the segment's elements up to the first cluster; a seek head may point beyond it. */
async function findChapters(read: ReadBytes, start: number, end: number): Promise<Span | null> {
  let seekTo: number | null = null
  for (let at = start, steps = 0; at < end && steps < MAX_STEPS; steps++) {
    const element = elementAt(await read(at, 16), 0)
    if (!element || element.id === CLUSTER || element.to === Infinity) break
    if (element.id === CHAPTERS) return { from: at + element.from, to: at + element.to }
    if (element.id === SEEK_HEAD && element.to < MAX_BYTES)
      seekTo = seekPosition(await read(at + element.from, element.to - element.from)) ?? seekTo
    at += element.to
  }
  if (seekTo === null) return null
  const found = elementAt(await read(start + seekTo, 16), 0)
  return found?.id === CHAPTERS ? { from: start + seekTo + found.from, to: start + seekTo + found.to } : null
}

function seekPosition(seekHead: Uint8Array): number | null {
  for (const { id, data } of elementsIn(seekHead)) {
    if (id !== SEEK) continue
    const fields = new Map([...elementsIn(data)].map((e) => [e.id, e.data]))
    if (unsigned(fields.get(SEEK_ID) ?? new Uint8Array()) === CHAPTERS)
      return unsigned(fields.get(SEEK_POSITION) ?? new Uint8Array())
  }
  return null
}

function chaptersOf(bytes: Uint8Array): Mark[] {
  const [edition] = [...elementsIn(bytes)].filter((e) => e.id === EDITION)
  return [...elementsIn(edition?.data ?? new Uint8Array())]
    .filter((e) => e.id === CHAPTER)
    .flatMap(({ data }): Mark[] => {
      const fields = new Map([...elementsIn(data)].map((e) => [e.id, e.data]))
      const start = fields.get(CHAPTER_START)
      if (!start || unsigned(fields.get(CHAPTER_HIDDEN) ?? new Uint8Array()) === 1) return []
      const end = fields.get(CHAPTER_END)
      const display = new Map(
        [...elementsIn(fields.get(CHAPTER_DISPLAY) ?? new Uint8Array())].map((e) => [e.id, e.data]),
      )
      const inMicros = nanosToMicros(start)
      const outMicros = end && nanosToMicros(end)
      return [
        {
          inMicros,
          outMicros: outMicros !== undefined && outMicros > inMicros ? outMicros : null,
          label: text(display.get(CHAPTER_STRING) ?? new Uint8Array()),
        },
      ]
    })
}

function nanosToMicros(data: Uint8Array): Micros {
  return Math.round(unsigned(data) / 1000)
}

/**
 * Bytes that a box with this head has: a length of 1 stands for a longer one after its name, 0 for all that is left.
 */
function sizeOfBox(head: Uint8Array, left: number): number {
  if (isLarge(head)) return Number(view(head).getBigUint64(8))
  return view(head).getUint32(0) || left
}

const isLarge = (head: Uint8Array) => head.length === 16 && view(head).getUint32(0) === 1
