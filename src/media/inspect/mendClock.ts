import { isTransportStream, TRANSPORT_PACKET_BYTES } from '@/core/coded/containers'
import { clockJumps, firstTimes, TransportClock } from '@/core/coded/transportClock'

/** Places in a file at which its clock is read, and bytes read at each: some hundred packets. */
const PLACES = 48
const PLACE_BYTES = 512 * TRANSPORT_PACKET_BYTES

/**
 * A transport stream whose clock begins anew part-way, or runs over, with one clock that goes on; null for any other
 * file. Reads a few megabytes of those. Throws when the file cannot be read.
 */
export async function mendClock(file: Blob): Promise<Blob | null> {
  const head = await bytesAt(file, 0, PLACE_BYTES)
  if (!isTransportStream(head)) return null
  const packets = Math.floor(file.size / TRANSPORT_PACKET_BYTES)
  const places: Map<number, number>[] = []
  for (let n = 0; n < PLACES; n++) {
    const packet = Math.floor((n / PLACES) * packets)
    places.push(firstTimes(await bytesAt(file, packet * TRANSPORT_PACKET_BYTES, PLACE_BYTES)))
  }
  if (!clockJumps(places)) return null
  return new Response(file.stream().pipeThrough(mending())).blob()
}

const bytesAt = async (file: Blob, from: number, length: number) =>
  new Uint8Array(await file.slice(from, from + length).arrayBuffer())

/** Passes a transport stream on with its times written anew; what does not make a whole packet waits for the rest. */
function mending(): TransformStream<Uint8Array, Uint8Array> {
  const clock = new TransportClock()
  let left = new Uint8Array(0)
  return new TransformStream({
    transform(chunk, controller) {
      const all = new Uint8Array(left.length + chunk.length)
      all.set(left)
      all.set(chunk, left.length)
      const whole = all.length - (all.length % TRANSPORT_PACKET_BYTES)
      clock.mend(all.subarray(0, whole))
      left = all.slice(whole)
      if (whole > 0) controller.enqueue(all.subarray(0, whole))
    },
    flush: (controller) => {
      if (left.length > 0) controller.enqueue(left)
    },
  })
}
