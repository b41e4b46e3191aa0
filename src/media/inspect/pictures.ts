import { CanvasSink } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import type { Source } from '../source/openSource'

/**
 * Small pictures of a recording at rising `times`, `height` px high, as WebP; null where a frame cannot be decoded. Each
 * packet is decoded at most once. Checks `signal` between pictures and stops with what it has.
 */
export async function picturesAt(source: Source, times: readonly Micros[], height: number, onPicture: (index: number, picture: Blob) => void, signal: AbortSignal): Promise<void> {
  const sink = new CanvasSink(source.video, { height, fit: 'fill', poolSize: 2 })
  const first = await source.video.getFirstTimestamp()
  let index = 0
  for await (const wrapped of sink.canvasesAtTimestamps(times.map((t) => Math.max(first, source.toContainer(t) + 0.001)))) {
    if (signal.aborted) return
    if (wrapped) onPicture(index, await (wrapped.canvas as OffscreenCanvas).convertToBlob({ type: 'image/webp', quality: 0.8 }))
    index++
  }
}
