import type { AvcConfig } from './avcConfig'
import { BitReader, BitWriter, ueLength } from './bits'

/** Kinds of NAL units (Rec. ITU-T H.264, table 7-1). */
const SLICE = 1
const KEY_SLICE = 5
const EXTRA = 6
const SEQUENCE_SET = 7
const PICTURE_SET = 8

/** Numbers of parameter sets, old to new. */
export interface AvcIds {
  sequence: ReadonlyMap<number, number>
  picture: ReadonlyMap<number, number>
}

/**
 * Numbers for the parameter sets of one track that another, with sets of its own, does not use. Those of picture sets
 * take a whole byte more than before: slices keep how their bits lie in bytes, and so their coded pictures as they
 * are. Null when there are none.
 */
export function idsBeside(config: AvcConfig, other: AvcConfig): AvcIds | null {
  const taken = {
    sequence: new Set(other.sequenceSets.map(sequenceId)),
    picture: new Set(other.pictureSets.map(pictureId)),
  }
  const sequence = new Map<number, number>()
  const picture = new Map<number, number>()
  for (const id of config.sequenceSets.map(sequenceId)) {
    const free = firstFree(0, 31, taken.sequence)
    if (free === null) return null
    sequence.set(id, free)
    taken.sequence.add(free)
  }
  for (const id of config.pictureSets.map(pictureId)) {
    const least = 2 ** ((ueLength(id) + 7) / 2) - 1
    const free = firstFree(least, Math.min(255, 2 * least), taken.picture)
    if (free === null) return null
    picture.set(id, free)
    taken.picture.add(free)
  }
  return { sequence, picture }
}

function firstFree(from: number, to: number, taken: ReadonlySet<number>): number | null {
  for (let id = from; id <= to; id++) if (!taken.has(id)) return id
  return null
}

const sequenceId = (set: Uint8Array) => new BitReader(plainBytes(set), 32).ue()
const pictureId = (set: Uint8Array) => new BitReader(plainBytes(set), 8).ue()

/** A record with other numbers for its sets. */
export function configWithIds(config: AvcConfig, ids: AvcIds): AvcConfig {
  return {
    ...config,
    sequenceSets: config.sequenceSets.map((s) => unitWithIds(s, ids)),
    pictureSets: config.pictureSets.map((s) => unitWithIds(s, ids)),
  }
}

/**
 * A packet, its NAL units each behind its length in four bytes, with other numbers for its sets. What is said besides
 * pictures and sets is left out: it may refer to them.
 */
export function packetWithIds(packet: Uint8Array, ids: AvcIds): Uint8Array<ArrayBuffer> {
  const units: Uint8Array[] = []
  const view = new DataView(packet.buffer, packet.byteOffset, packet.byteLength)
  for (let at = 0; at + 4 <= packet.length;) {
    const length = view.getUint32(at)
    const unit = packet.subarray(at + 4, at + 4 + length)
    if (unit.length !== length) throw new RangeError('a packet ends within a unit')
    if (kindOf(unit) !== EXTRA) units.push(unitWithIds(unit, ids))
    at += 4 + length
  }
  const all = new Uint8Array(units.reduce((sum, u) => sum + 4 + u.length, 0))
  let at = 0
  for (const unit of units) {
    new DataView(all.buffer).setUint32(at, unit.length)
    all.set(unit, at + 4)
    at += 4 + unit.length
  }
  return all
}

const kindOf = (unit: Uint8Array) => (unit[0] ?? 0) & 0x1f

function unitWithIds(unit: Uint8Array, ids: AvcIds): Uint8Array {
  switch (kindOf(unit)) {
    case SLICE:
    case KEY_SLICE:
      return sliceWithId(unit, ids)
    case SEQUENCE_SET:
      return setWithIds(unit, 32, [ids.sequence])
    case PICTURE_SET:
      return setWithIds(unit, 8, [ids.picture, ids.sequence])
    default:
      return unit
  }
}

/** A parameter set whose numbers begin at bit `from`. */
function setWithIds(unit: Uint8Array, from: number, kinds: readonly ReadonlyMap<number, number>[]): Uint8Array {
  const bytes = plainBytes(unit)
  const reader = new BitReader(bytes)
  const writer = new BitWriter()
  writer.bits(reader.bits(from), from)
  for (const kind of kinds) writer.ue(newId(kind, reader.ue()))
  const last = lastOne(bytes)
  while (reader.at <= last) writer.bit(reader.bit())
  return escapedBytes(writer.end())
}

/** The stop bit: what comes after it only fills the byte. */
function lastOne(bytes: Uint8Array): number {
  for (let at = bytes.length * 8 - 1; at >= 0; at--) if (((bytes[at >> 3] ?? 0) >> (7 - (at & 7))) & 1) return at
  return -1
}

/** A slice: its kind, its first macroblock, its type, and then the number of its picture set. */
function sliceWithId(unit: Uint8Array, ids: AvcIds): Uint8Array {
  const bytes = plainBytes(unit)
  const reader = new BitReader(bytes, 8)
  reader.ue()
  reader.ue()
  const from = reader.at
  const old = reader.ue()
  const id = newId(ids.picture, old)
  const more = (ueLength(id) - ueLength(old)) / 8
  if (!Number.isInteger(more) || more < 1) throw new RangeError('a slice would not keep its bytes')
  const begin = new BitWriter()
  const head = new BitReader(bytes)
  for (let i = 0; i < from; i++) begin.bit(head.bit())
  begin.ue(id)
  // The rest of the byte in which the old number ended; from there on whole bytes move.
  while (reader.at % 8 !== 0) begin.bit(reader.bit())
  const start = begin.end()
  const rest = bytes.subarray(reader.at / 8)
  const all = new Uint8Array(start.length + rest.length)
  all.set(start)
  all.set(rest, start.length)
  return escapedBytes(all)
}

function newId(ids: ReadonlyMap<number, number>, old: number): number {
  const id = ids.get(old)
  if (id === undefined) throw new RangeError(`no new number for parameter set ${old}`)
  return id
}

/** A unit without the bytes that keep start codes out of it (7.4.1). */
export function plainBytes(unit: Uint8Array): Uint8Array {
  const out = new Uint8Array(unit.length)
  let [length, zeros] = [0, 0]
  for (const byte of unit) {
    if (zeros >= 2 && byte === 3) {
      zeros = 0
      continue
    }
    zeros = byte === 0 ? zeros + 1 : 0
    out[length++] = byte
  }
  return out.subarray(0, length)
}

function escapedBytes(plain: Uint8Array): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(plain.length + (plain.length >> 1) + 2)
  let [length, zeros] = [0, 0]
  for (const byte of plain) {
    if (zeros >= 2 && byte <= 3) {
      out[length++] = 3
      zeros = 0
    }
    zeros = byte === 0 ? zeros + 1 : 0
    out[length++] = byte
  }
  if (zeros > 0) out[length++] = 3
  return out.slice(0, length)
}
