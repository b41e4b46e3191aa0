import { EncodedPacketSink, type VideoSample } from 'mediabunny'
import type { Micros } from '@/core/time/micros'
import { CropReader } from '../draw/cropReader'
import { smallPicture } from '../draw/smallPicture'
import { framesAt } from '../source/framesAt'
import type { Source } from '../source/openSource'

/**
 * Which frame stands for a moment: the one on screen then, or the key frame before it, which is far quicker to
 * decode.
 */
export type PicturePrecision = 'exact' | 'key-frame'

/**
 * Small pictures of a recording at rising `times`, `height` px high, as WebP. `onPicture` is called with the index of
 * the time as each is made; not at all where a frame cannot be decoded. Between pictures it waits for its `turn`, and
 * stops with what it has when `signal` is aborted.
 */
export async function picturesAt(
  source: Source,
  times: readonly Micros[],
  height: number,
  precision: PicturePrecision,
  onPicture: (index: number, picture: Blob) => void | Promise<void>,
  signal: AbortSignal,
  turn: () => Promise<void>,
): Promise<void> {
  const reader = new CropReader()
  const first = await source.video.getFirstTimestamp()
  const exact = times.map((t) => Math.max(first, source.toContainer(t) + 0.001))
  const seconds = precision === 'exact' ? exact : await keyFramesBefore(source, exact)
  const made = async (sample: VideoSample) => {
    reader.begin()
    return smallPicture(sample, await reader.readWhole(sample), height)
  }
  let index = 0
  let previous: { at: number; picture: Blob } | null = null
  for await (const sample of framesAt(source.video, seconds)) {
    try {
      await turn()
      if (signal.aborted) return
      if (sample) {
        const picture: Blob = previous?.at === sample.timestamp ? previous.picture : await made(sample)
        previous = { at: sample.timestamp, picture }
        // Waited for: across threads the last would else come after the end.
        await onPicture(index, picture)
      }
      index++
    } finally {
      sample?.close()
    }
  }
}

async function keyFramesBefore(source: Source, seconds: readonly number[]): Promise<number[]> {
  const packets = new EncodedPacketSink(source.video)
  return Promise.all(seconds.map(async (s) => (await packets.getKeyPacket(s, { metadataOnly: true }))?.timestamp ?? s))
}
