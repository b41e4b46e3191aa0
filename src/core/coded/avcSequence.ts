import { plainBytes } from './avcIds'
import { BitReader } from './bits'

/** Profiles whose sequence sets tell of colours and scaling (Rec. ITU-T H.264, 7.3.2.1.1). */
const WITH_CHROMA = new Set([100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135])

/**
 * Whether pictures coded by a sequence parameter set, a whole NAL unit, may be interlaced: `frame_mbs_only_flag` is
 * 0. Throws RangeError where it is no such set.
 */
export function mayBeInterlaced(set: Uint8Array): boolean {
  const reader = new BitReader(plainBytes(set), 8)
  const profile = reader.bits(8)
  reader.bits(16)
  reader.ue()
  if (WITH_CHROMA.has(profile)) skipChroma(reader)
  reader.ue()
  skipOrder(reader)
  reader.ue()
  reader.bit()
  reader.ue()
  reader.ue()
  return reader.bit() === 0
}

function skipChroma(reader: BitReader): void {
  const chroma = reader.ue()
  if (chroma === 3) reader.bit()
  reader.ue()
  reader.ue()
  reader.bit()
  if (reader.bit() === 0) return
  for (let list = 0; list < (chroma === 3 ? 12 : 8); list++) if (reader.bit()) skipScaling(reader, list < 6 ? 16 : 64)
}

function skipScaling(reader: BitReader, size: number): void {
  let [last, next] = [8, 8]
  for (let i = 0; i < size && next !== 0; i++) {
    next = (last + signed(reader.ue()) + 256) % 256
    if (next !== 0) last = next
  }
}

const signed = (code: number) => (code % 2 === 1 ? (code + 1) / 2 : -code / 2)

function skipOrder(reader: BitReader): void {
  const kind = reader.ue()
  if (kind === 0) reader.ue()
  if (kind !== 1) return
  reader.bit()
  reader.ue()
  reader.ue()
  for (let left = reader.ue(); left > 0; left--) reader.ue()
}

const SEQUENCE_SET = 7

/** The first sequence parameter set in a packet whose NAL units stand behind start codes (Annex B); null for none. */
export function sequenceSetIn(packet: Uint8Array): Uint8Array | null {
  const isStart = (at: number) => packet[at] === 0 && packet[at + 1] === 0 && packet[at + 2] === 1
  for (let at = 0; at + 4 <= packet.length; at++) {
    if (!isStart(at) || ((packet[at + 3] ?? 0) & 0x1f) !== SEQUENCE_SET) continue
    let end = at + 4
    while (end < packet.length && !isStart(end)) end++
    return packet.subarray(at + 3, end)
  }
  return null
}
