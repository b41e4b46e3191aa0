import type { EncodedPacket, InputVideoTrack } from 'mediabunny'
import { isDisposable } from '@/core/coded/disposable'
import { avcDescription } from './avcDescription'

/**
 * A frame's neighbour in time lies at most so many packets behind it: decoders hold back no more in practice. Should
 * one, more is decoded than is looked at.
 */
const REORDERED = 8

/** Whether nobody will look at the frame on screen between two container times. */
export type IsUnseen = (fromSeconds: number, toSeconds: number) => boolean

/** Tells the packets of a track apart that no other frame is made from; of what is not H.264, none. */
export async function disposableIn(track: InputVideoTrack): Promise<(packet: EncodedPacket) => boolean> {
  if ((await track.getCodec()) !== 'avc') return () => false
  const described = await avcDescription(track)
  // Its fifth byte ends in the length's size less one.
  const lengthBytes = described ? ((described[4] ?? 3) & 3) + 1 : null
  return ({ data }) => isDisposable(data, lengthBytes)
}

/** Packets in their order, without those whose frames nobody will look at and no other frame is made from. */
export async function* withoutUnseen(
  packets: AsyncIterable<EncodedPacket>,
  isDisposablePacket: (packet: EncodedPacket) => boolean,
  isUnseen: IsUnseen,
): AsyncGenerator<EncodedPacket, void, unknown> {
  const waiting: { packet: EncodedPacket; disposable: boolean }[] = []
  const near: number[] = []
  const isLeftOut = ({ packet, disposable }: (typeof waiting)[number]) => {
    if (!disposable) return false
    const next = Math.min(...near.filter((t) => t > packet.timestamp))
    return Number.isFinite(next) && isUnseen(packet.timestamp, next)
  }
  for await (const packet of packets) {
    waiting.push({ packet, disposable: isDisposablePacket(packet) })
    near.push(packet.timestamp)
    if (near.length > 3 * REORDERED) near.shift()
    // What others are made from need not wait to be judged.
    for (let [first] = waiting; first && (!first.disposable || waiting.length > REORDERED); [first] = waiting) {
      waiting.shift()
      if (!isLeftOut(first)) yield first.packet
    }
  }
  for (const left of waiting) if (!isLeftOut(left)) yield left.packet
}
