/** NAL unit types of coded slices (Rec. ITU-T H.264, table 7-1). */
const FIRST_SLICE = 1
const LAST_SLICE = 5

/**
 * Whether no other picture is made from this one: the `nal_ref_idc` of its slices is 0 (Rec. ITU-T H.264, 7.4.1), the
 * same for all of them. `lengthBytes`: of the length before each NAL unit, as in MP4 and Matroska; null where start
 * codes stand between them. False for what holds no slice.
 */
export function isDisposable(packet: Uint8Array, lengthBytes: number | null): boolean {
  for (const at of lengthBytes === null ? afterStartCodes(packet) : afterLengths(packet, lengthBytes)) {
    const header = packet[at] ?? 0
    const type = header & 31
    if (type >= FIRST_SLICE && type <= LAST_SLICE) return ((header >> 5) & 3) === 0
  }
  return false
}

function* afterLengths(packet: Uint8Array, lengthBytes: number): Generator<number> {
  for (let at = 0; at + lengthBytes < packet.length;) {
    let length = 0
    for (let i = 0; i < lengthBytes; i++) length = length * 256 + (packet[at + i] ?? 0)
    yield at + lengthBytes
    at += lengthBytes + length
  }
}

function* afterStartCodes(packet: Uint8Array): Generator<number> {
  for (let at = 0; at + 3 < packet.length; at++)
    if (packet[at] === 0 && packet[at + 1] === 0 && packet[at + 2] === 1) yield at + 3
}
