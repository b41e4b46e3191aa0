import { BitReader } from './bits'

/**
 * What a decoder is told about a track of H.264: the decoder configuration record of ISO/IEC 14496-15, 5.3.3.1.
 * Parameter sets are whole NAL units.
 */
export interface AvcConfig {
  profile: number
  /** Constraint flags. */
  compatibility: number
  level: number
  /** How many bytes tell the length of a NAL unit in a packet. */
  lengthBytes: number
  sequenceSets: Uint8Array[]
  pictureSets: Uint8Array[]
  /** What profiles from High on say besides; empty for others. */
  tail: Uint8Array
}

const FIRST_WITH_TAIL = 100

/** Null when it is not such a record. */
export function readAvcConfig(bytes: Uint8Array): AvcConfig | null {
  let at = 5
  const set = () => {
    const length = ((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0)
    at += 2 + length
    return at > bytes.length ? null : bytes.slice(at - length, at)
  }
  const sets = (count: number) => Array.from({ length: count }, set)
  const [version, profile = 0, compatibility = 0, level = 0, lengths = 0] = bytes
  if (version !== 1) return null
  const sequenceSets = sets((bytes[at++] ?? 0) & 0x1f)
  const pictureSets = sets(bytes[at++] ?? 0)
  if (![...sequenceSets, ...pictureSets].every((s) => s !== null && s.length > 0) || sequenceSets.length === 0)
    return null
  return {
    profile,
    compatibility,
    level,
    lengthBytes: (lengths & 3) + 1,
    sequenceSets: sequenceSets as Uint8Array[],
    pictureSets: pictureSets as Uint8Array[],
    tail: bytes.slice(at),
  }
}

export function writeAvcConfig({
  profile,
  compatibility,
  level,
  lengthBytes,
  sequenceSets,
  pictureSets,
  tail,
}: AvcConfig): Uint8Array<ArrayBuffer> {
  const sets = (all: Uint8Array[]) => all.flatMap((s) => [s.length >> 8, s.length & 0xff, ...s])
  return Uint8Array.from([
    1,
    profile,
    compatibility,
    level,
    0xfc | (lengthBytes - 1),
    0xe0 | sequenceSets.length,
    ...sets(sequenceSets),
    pictureSets.length,
    ...sets(pictureSets),
    ...tail,
  ])
}

/** Both in one track; null when no one record can tell of both. */
export function mergedAvcConfig(one: AvcConfig, other: AvcConfig): AvcConfig | null {
  if (one.lengthBytes !== other.lengthBytes || !isPlain(one) || !isPlain(other)) return null
  const higher = one.profile >= other.profile ? one : other
  return {
    profile: higher.profile,
    compatibility: one.compatibility & other.compatibility,
    level: Math.max(one.level, other.level),
    lengthBytes: one.lengthBytes,
    sequenceSets: [...one.sequenceSets, ...other.sequenceSets],
    pictureSets: [...one.pictureSets, ...other.pictureSets],
    tail: higher.profile >= FIRST_WITH_TAIL ? Uint8Array.of(0xfd, 0xf8, 0xf8, 0) : new Uint8Array(0),
  }
}

/** Baseline, Main or High, 4:2:0 with 8 bits: what everything plays. */
function isPlain({ profile, sequenceSets }: AvcConfig): boolean {
  if (![66, 77, FIRST_WITH_TAIL].includes(profile)) return false
  if (profile < FIRST_WITH_TAIL) return true
  return sequenceSets.every((set) => {
    // After profile, flags and level: the set's id, then how colour is sampled and how many bits both have beyond 8.
    const reader = new BitReader(set, 32)
    reader.ue()
    return reader.ue() === 1 && reader.ue() === 0 && reader.ue() === 0
  })
}

/** Kinds of NAL units that are parameter sets (Rec. ITU-T H.264, table 7-1). */
const SETS: ReadonlySet<number> = new Set([7, 8])

/** Whether a packet brings parameter sets that its track does not tell of: from there on it is coded another way. */
export function bringsOtherSets(packet: Uint8Array, config: AvcConfig): boolean {
  const known = [...config.sequenceSets, ...config.pictureSets]
  for (let at = 0; at + config.lengthBytes < packet.length;) {
    let length = 0
    for (let i = 0; i < config.lengthBytes; i++) length = length * 256 + (packet[at + i] ?? 0)
    at += config.lengthBytes
    const unit = packet.subarray(at, at + length)
    if (SETS.has((unit[0] ?? 0) & 0x1f) && !known.some((set) => isEqual(set, unit))) return true
    at += length
  }
  return false
}

const isEqual = (a: Uint8Array, b: Uint8Array) => a.length === b.length && a.every((byte, i) => byte === b[i])
