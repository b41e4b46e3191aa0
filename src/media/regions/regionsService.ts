import { EncodedPacketSink } from 'mediabunny'
import { fingerprintOf } from '@/core/detect/regions/fingerprint'
import { FrameWatcher } from '@/core/detect/regions/frameWatcher'
import { StillLines } from '@/core/detect/regions/lines'
import { proposeRegions, type Seen } from '@/core/detect/regions/propose'
import { tighten } from '@/core/detect/regions/tighten'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import { framesAt } from '../source/framesAt'
import { openSource, type Source } from '../source/openSource'
import type { SourceFile } from '../source/openSources'
import type { LookOutcome, RegionsWorker } from '../workers/regions.protocol'
import { LumaReader } from './luma'

/** Fewer different key frames than this near the wanted times, and the frames themselves are decoded. */
const ENOUGH_KEY_FRAMES = 0.7

/** Looks at frames that lie far apart and says what holds still in them. */
export class RegionsService implements RegionsWorker {
  private running: AbortController | null = null
  private last: { recordingId: string; seen: Seen; upright: StillLines; level: StillLines } | null = null

  async look(file: SourceFile, size: Size, times: Micros[], onProgress: (share: number) => void): Promise<LookOutcome> {
    this.running?.abort()
    const abort = new AbortController()
    this.running = abort
    try {
      const seen = await watch(file, size, times, onProgress, abort.signal)
      const upright = new StillLines(seen.stillness, 'x')
      const level = new StillLines(seen.stillness, 'y')
      this.last = { recordingId: file.id, seen, upright, level }
      return { kind: 'seen', look: { size, proposals: proposeRegions(seen, upright, level), fingerprint: fingerprintOf(seen.stillness, upright, level), upright: upright.data, level: level.data } }
    } catch (error) {
      if (abort.signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: error instanceof Error ? error.message : String(error) }
    } finally {
      if (this.running === abort) this.running = null
    }
  }

  tighten(recordingId: string, rect: Rect): Promise<Rect | null> {
    const { last } = this
    return Promise.resolve(last?.recordingId === recordingId ? tighten(rect, last.seen.stillness, last.upright, last.level) : null)
  }

  stop(): void {
    this.running?.abort()
  }
}

async function watch({ file, originMicros }: SourceFile, size: Size, times: readonly Micros[], onProgress: (share: number) => void, signal: AbortSignal): Promise<Seen> {
  const source = await openSource(file, originMicros)
  try {
    const watcher = new FrameWatcher(size)
    const reader = new LumaReader()
    const seconds = await quickTimes(source, times)
    let done = 0
    for await (const sample of framesAt(source.video, seconds)) {
      try {
        signal.throwIfAborted()
        if (sample) watcher.add(await reader.read(sample, size))
      } finally {
        sample?.close()
      }
      onProgress(++done / seconds.length)
    }
    return watcher.seen()
  } finally {
    source.dispose()
  }
}

/** Container times of the key frames before the wanted times, which decode at once, unless many of those are the same. */
async function quickTimes(source: Source, times: readonly Micros[]): Promise<number[]> {
  const packets = new EncodedPacketSink(source.video)
  const first = await source.video.getFirstTimestamp()
  const wanted = times.map((t) => Math.max(first, source.toContainer(t) + 0.001))
  const keys = new Set<number>()
  for (const t of wanted) keys.add((await packets.getKeyPacket(t, { metadataOnly: true }))?.timestamp ?? t)
  return keys.size >= wanted.length * ENOUGH_KEY_FRAMES ? [...keys] : wanted
}
