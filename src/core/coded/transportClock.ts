import { beginsUnit, packetId, payloadOf, TRANSPORT_PACKET_BYTES } from './containers'

/** Ticks of a transport stream's times: 90,000 a second, in 33 bits (ISO/IEC 13818-1, 2.4.3.7). */
const TICKS_PER_SECOND = 90_000
const ALL_TICKS = 2 ** 33

/** Further apart than so, two packets of one stream that follow each other are of two clocks. */
const MAX_BACK = TICKS_PER_SECOND / 2
const MAX_AHEAD = 10 * TICKS_PER_SECOND
/** How long a packet lasts that is the last before another clock begins: one frame of most. */
const LAST_LASTS = TICKS_PER_SECOND / 30

/** Ticks from `from` to `to` on a clock that begins anew after 33 bits; negative for back. */
function ticksBetween(from: number, to: number): number {
  const ahead = (((to - from) % ALL_TICKS) + ALL_TICKS) % ALL_TICKS
  return ahead > ALL_TICKS / 2 ? ahead - ALL_TICKS : ahead
}

const isOneClock = (from: number, to: number) => {
  const ticks = ticksBetween(from, to)
  return ticks >= -MAX_BACK && ticks <= MAX_AHEAD
}

/** Where the times in the packet at `at` stand: when it is shown, and when it is decoded, if that is said. */
function timesIn(bytes: Uint8Array, at: number): { shown: number; decoded: number | null } | null {
  const payload = beginsUnit(bytes, at) ? payloadOf(bytes, at) : null
  if (payload === null || payload + 19 > at + TRANSPORT_PACKET_BYTES) return null
  if (bytes[payload] !== 0 || bytes[payload + 1] !== 0 || bytes[payload + 2] !== 1) return null
  const said = ((bytes[payload + 7] ?? 0) >> 6) & 3
  if (((bytes[payload + 6] ?? 0) & 0xc0) !== 0x80 || said < 2) return null
  return { shown: payload + 9, decoded: said === 3 ? payload + 14 : null }
}

function readTicks(bytes: Uint8Array, at: number): number {
  const [a = 0, b = 0, c = 0, d = 0, e = 0] = bytes.subarray(at, at + 5)
  return ((a >> 1) & 7) * 2 ** 30 + (b << 22) + ((c >> 1) << 15) + (d << 7) + (e >> 1)
}

function writeTicks(bytes: Uint8Array, at: number, ticks: number): void {
  const high = Math.floor(ticks / 2 ** 30)
  const low = ticks % 2 ** 30
  bytes[at] = ((bytes[at] ?? 0) & 0xf1) | (high << 1)
  bytes[at + 1] = low >> 22
  bytes[at + 2] = ((low >> 14) & 0xfe) | 1
  bytes[at + 3] = (low >> 7) & 0xff
  bytes[at + 4] = ((low << 1) & 0xfe) | 1
}

/** The first time in these bytes, whole packets, of each stream, ticks. */
export function firstTimes(bytes: Uint8Array): Map<number, number> {
  const times = new Map<number, number>()
  for (let at = 0; at + TRANSPORT_PACKET_BYTES <= bytes.length; at += TRANSPORT_PACKET_BYTES) {
    const found = timesIn(bytes, at)
    const id = packetId(bytes, at)
    if (found && !times.has(id)) times.set(id, readTicks(bytes, found.decoded ?? found.shown))
  }
  return times
}

/**
 * Whether times read at places that follow each other in a file are not those of one clock that only goes forward:
 * it began anew, or ran over.
 */
export function clockJumps(places: readonly ReadonlyMap<number, number>[]): boolean {
  return places.some((times, n) =>
    [...times].some(([id, ticks]) => {
      const before = places
        .slice(0, n)
        .reverse()
        .find((t) => t.has(id))
        ?.get(id)
      return before !== undefined && ticks < before - MAX_BACK
    }),
  )
}

/** One clock for a whole transport stream: give it the stream's packets in their order, whole ones. */
export class TransportClock {
  /** What is added to the times of each part that had a clock of its own. */
  private readonly added: number[] = []
  private readonly streams = new Map<number, { part: number; last: number }>()

  /** Writes times anew, in place, so that each part goes on where the one before ended. */
  mend(bytes: Uint8Array): void {
    for (let at = 0; at + TRANSPORT_PACKET_BYTES <= bytes.length; at += TRANSPORT_PACKET_BYTES) {
      const times = timesIn(bytes, at)
      if (times) this.mendPacket(bytes, packetId(bytes, at), times)
    }
  }

  private mendPacket(
    bytes: Uint8Array,
    id: number,
    { shown, decoded }: { shown: number; decoded: number | null },
  ): void {
    const ticks = readTicks(bytes, decoded ?? shown)
    const stream = this.streams.get(id) ?? { part: 0, last: ticks }
    // What is decoded before it is shown may lie before the very first time that was read.
    if (this.added.length === 0) this.added.push(TICKS_PER_SECOND - ticks)
    if (!isOneClock(stream.last, ticks)) {
      stream.part++
      const end = stream.last + LAST_LASTS + (this.added[stream.part - 1] ?? 0)
      if (this.added.length === stream.part) this.added.push(end - ticks)
    }
    stream.last = ticks
    this.streams.set(id, stream)
    const added = this.added[stream.part] ?? 0
    const mended = (t: number) => (((t + added) % ALL_TICKS) + ALL_TICKS) % ALL_TICKS
    const shownTicks = mended(readTicks(bytes, shown))
    if (decoded !== null) writeTicks(bytes, decoded, mended(readTicks(bytes, decoded)))
    writeTicks(bytes, shown, shownTicks)
  }
}
