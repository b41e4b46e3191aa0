import { CanvasSink, EncodedPacketSink } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import type { Source } from '../source/openSource'

/** Which frame stands for a moment: the one on screen then, or the key frame before it, which is far quicker to decode. */
export type PicturePrecision = 'exact' | 'key-frame'

/**
 * Small pictures of a recording at rising `times`, `height` px high, as WebP. `onPicture` is called with the index of the time as each is
 * made; not at all where a frame cannot be decoded. Checks `signal` between pictures and stops with what it has.
 */
export async function picturesAt(source: Source, times: readonly Micros[], height: number, precision: PicturePrecision, onPicture: (index: number, picture: Blob) => void, signal: AbortSignal): Promise<void> {
  const sink = new CanvasSink(source.video, { height, fit: 'fill', poolSize: 2 })
  const first = await source.video.getFirstTimestamp()
  const exact = times.map((t) => Math.max(first, source.toContainer(t) + 0.001))
  const seconds = precision === 'exact' ? exact : await keyFramesBefore(source, exact)
  let index = 0
  let previous: { at: number; picture: Blob } | null = null
  for await (const wrapped of sink.canvasesAtTimestamps(seconds)) {
    if (signal.aborted) return
    if (wrapped) {
      const picture: Blob = previous?.at === wrapped.timestamp ? previous.picture : await (wrapped.canvas as OffscreenCanvas).convertToBlob({ type: 'image/webp', quality: 0.8 })
      previous = { at: wrapped.timestamp, picture }
      onPicture(index, picture)
    }
    index++
  }
}

async function keyFramesBefore(source: Source, seconds: readonly number[]): Promise<number[]> {
  const packets = new EncodedPacketSink(source.video)
  return Promise.all(seconds.map(async (s) => (await packets.getKeyPacket(s, { metadataOnly: true }))?.timestamp ?? s))
}
