/** Bytes of a transport packet, and the one that each begins with (ISO/IEC 13818-1, 2.4.3). */
export const TRANSPORT_PACKET_BYTES = 188
export const TRANSPORT_SYNC = 0x47

const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to))
const begins = (bytes: Uint8Array, ...start: number[]) => start.every((b, i) => bytes[i] === b)

/** What kind of file of pictures its first bytes tell of, of those that Brimble does not read; null for others. */
export function unreadContainer(head: Uint8Array): string | null {
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 12) === 'AVI ') return 'AVI'
  if (begins(head, 0x30, 0x26, 0xb2, 0x75, 0x8e, 0x66, 0xcf, 0x11)) return 'WMV (ASF)'
  if (ascii(head, 0, 3) === 'FLV') return 'FLV'
  if (begins(head, 0, 0, 1, 0xba)) return 'MPEG program stream'
  if (begins(head, 0x06, 0x0e, 0x2b, 0x34)) return 'MXF'
  if (ascii(head, 0, 4) === '.RMF') return 'RealMedia'
  return null
}

/** How an MP4 calls pictures that cannot be decoded without a key (ISO/IEC 14496-12, 8.12), and what tells of it. */
const ENCRYPTED = ['encv', 'sinf', 'schm']

/** Whether bytes of an MP4's index say that its pictures are encrypted. */
export function holdsEncrypted(index: Uint8Array): boolean {
  const text = new TextDecoder('latin1').decode(index)
  return ENCRYPTED.every((name) => text.includes(name))
}

/** Whether bytes are those of a transport stream: five packets follow each other. */
export function isTransportStream(head: Uint8Array): boolean {
  return [0, 1, 2, 3, 4].every((n) => head[n * TRANSPORT_PACKET_BYTES] === TRANSPORT_SYNC)
}

/** Where the payload of the packet that begins at `at` begins; null where it has none. */
export function payloadOf(bytes: Uint8Array, at: number): number | null {
  const control = ((bytes[at + 3] ?? 0) >> 4) & 3
  if (!(control & 1)) return null
  const from = at + 4 + (control & 2 ? 1 + (bytes[at + 4] ?? 0) : 0)
  return from < at + TRANSPORT_PACKET_BYTES ? from : null
}

export const packetId = (bytes: Uint8Array, at: number) => (((bytes[at + 1] ?? 0) & 0x1f) << 8) | (bytes[at + 2] ?? 0)
export const beginsUnit = (bytes: Uint8Array, at: number) => ((bytes[at + 1] ?? 0) & 0x40) !== 0

/**
 * The kinds of streams (ISO/IEC 13818-1, table 2-34) that the first program of a transport stream says it holds;
 * empty where its tables are not in these bytes.
 */
export function streamTypes(bytes: Uint8Array): number[] {
  let mapId: number | null = null
  for (let at = 0; at + TRANSPORT_PACKET_BYTES <= bytes.length; at += TRANSPORT_PACKET_BYTES) {
    const payload = beginsUnit(bytes, at) ? payloadOf(bytes, at) : null
    if (payload === null) continue
    const table = payload + 1 + (bytes[payload] ?? 0)
    const end = table + 3 + ((((bytes[table + 1] ?? 0) & 0x0f) << 8) | (bytes[table + 2] ?? 0)) - 4
    if (packetId(bytes, at) === 0) mapId ??= firstProgram(bytes, table + 8, end)
    else if (packetId(bytes, at) === mapId) return typesIn(bytes, table, end)
  }
  return []
}

/** The packets in which the first program's map is; number 0 stands for the network's own table. */
function firstProgram(bytes: Uint8Array, from: number, end: number): number | null {
  for (let at = from; at + 4 <= end; at += 4)
    if (bytes[at] !== 0 || bytes[at + 1] !== 0) return (((bytes[at + 2] ?? 0) & 0x1f) << 8) | (bytes[at + 3] ?? 0)
  return null
}

function typesIn(bytes: Uint8Array, table: number, end: number): number[] {
  const lengthAt = (at: number) => (((bytes[at] ?? 0) & 0x0f) << 8) | (bytes[at + 1] ?? 0)
  const types: number[] = []
  for (let at = table + 12 + lengthAt(table + 10); at + 5 <= end; at += 5 + lengthAt(at + 3)) types.push(bytes[at] ?? 0)
  return types
}

/** Kinds of streams with pictures that Brimble does not read. */
const UNREAD_PICTURES: Readonly<Record<number, string>> = { 0x01: 'MPEG-1', 0x02: 'MPEG-2', 0x10: 'MPEG-4 Part 2' }

/** How the pictures of a transport stream are coded, where that is a way that Brimble does not read; else null. */
export function unreadPictures(bytes: Uint8Array): string | null {
  if (!isTransportStream(bytes)) return null
  return streamTypes(bytes).flatMap((t) => UNREAD_PICTURES[t] ?? [])[0] ?? null
}
