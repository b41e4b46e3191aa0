import { EncodedPacketSink } from 'mediabunny'
import { fingerprintOf } from '@/core/detect/regions/fingerprint'
import { FrameWatcher } from '@/core/detect/regions/frameWatcher'
import { StillLines } from '@/core/detect/regions/lines'
import { placesForFaces } from '@/core/detect/regions/cameras'
import { placesOf } from '@/core/detect/regions/places'
import { proposeRegions } from '@/core/detect/regions/propose'
import { structureOf, type RegionEvidence } from '@/core/detect/regions/structure'
import { peopleIn, type SeenPerson } from '@/core/detect/regions/people'
import type { Stillness } from '@/core/detect/regions/stillness'
import { stirred } from '@/core/detect/regions/whoSpeaks'
import { tighten } from '@/core/detect/regions/tighten'
import type { Rect, Size } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import { explain, note } from '@/diagnostics/note'
import { CropReader } from '../draw/cropReader'
import { FaceFinder } from '../faces/faceFinder'
import { FaceSearch } from '../faces/faceSearch'
import { framesAt } from '../source/framesAt'
import { openSource, type Source } from '../source/openSource'
import { claimWhile } from '../ranks/turns'
import type { SourceFile } from '../source/openSources'
import type { LookOutcome, RegionsWorker } from '../workers/regions.protocol'
import { LumaReader } from './luma'

/** Fewer different key frames than this near the wanted times, and the frames themselves are decoded. */
const ENOUGH_KEY_FRAMES = 0.7

/** Frames that are searched for faces, of those that are looked at. */
const FACE_FRAMES = 6

/** What share of a look is over once its frames are there. */
const DECODING = 0.4

/** Looks at frames that lie far apart and says what holds still in them. */
export class RegionsService implements RegionsWorker {
  private running: AbortController | null = null
  private finder: Promise<FaceFinder> | null = null
  private last: { recordingId: string; stillness: Stillness; upright: StillLines; level: StillLines } | null = null

  async look(
    file: SourceFile,
    size: Size,
    times: Micros[],
    withFaces: boolean,
    onProgress: (share: number) => void,
  ): Promise<LookOutcome> {
    this.running?.abort()
    const abort = new AbortController()
    this.running = abort
    try {
      const onDecoded = (share: number) => onProgress(share * DECODING)
      const { seen, search } = await claimWhile('looks', () =>
        watch(file, size, times, withFaces, onDecoded, abort.signal),
      )
      const upright = new StillLines(seen.stillness, 'x')
      const level = new StillLines(seen.stillness, 'y')
      this.last = { recordingId: file.id, stillness: seen.stillness, upright, level }
      const structure = structureOf(seen, upright, level)
      const onFaces = (share: number) => onProgress(DECODING + (1 - DECODING) * share)
      const people =
        structure &&
        search &&
        (await claimWhile('looks', () => this.peopleIn(search, size, placesForFaces(structure), onFaces, abort.signal)))
      const proposals = proposeRegions(structure, people)
      const places = people && placesOf(proposals, people, size)
      return {
        kind: 'seen',
        look: {
          size,
          proposals,
          fingerprint: fingerprintOf(seen.stillness, upright, level, places),
          upright: upright.data,
          level: level.data,
        },
      }
    } catch (error) {
      if (abort.signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: explain('finding regions', error) }
    } finally {
      if (this.running === abort) this.running = null
    }
  }

  async stir(
    { file, originMicros }: SourceFile,
    size: Size,
    regions: Rect[],
    stretches: { fromMicros: Micros; toMicros: Micros }[],
  ): Promise<number[][]> {
    const source = await openSource(file, originMicros)
    try {
      const reader = new LumaReader()
      const samples: number[][] = []
      for (const stretch of stretches) samples.push(await stirIn(source, reader, size, regions, stretch))
      return samples
    } finally {
      source.dispose()
    }
  }

  tighten(recordingId: string, rect: Rect): Promise<Rect | null> {
    const { last } = this
    return Promise.resolve(
      last?.recordingId === recordingId ? tighten(rect, last.stillness, last.upright, last.level) : null,
    )
  }

  stop(): void {
    this.running?.abort()
  }

  /** Who is in the frames that were kept; null where the model cannot be had, which is no reason to find nothing. */
  private async peopleIn(
    search: FaceSearch,
    size: Size,
    places: readonly Rect[],
    onFrame: (share: number) => void,
    signal: AbortSignal,
  ): Promise<SeenPerson[] | null> {
    try {
      const finder = await (this.finder ??= FaceFinder.open())
      return peopleIn(await search.find(finder, size, places, onFrame, signal))
    } catch (error) {
      signal.throwIfAborted()
      this.finder = null
      note('looking for faces', error)
      return null
    }
  }
}

async function watch(
  { file, originMicros }: SourceFile,
  size: Size,
  times: readonly Micros[],
  withFaces: boolean,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<{ seen: RegionEvidence; search: FaceSearch | null }> {
  const source = await openSource(file, originMicros)
  try {
    const watcher = new FrameWatcher(size)
    const reader = new LumaReader()
    const search = withFaces ? new FaceSearch() : null
    const cropReader = new CropReader()
    const seconds = await quickTimes(source, times)
    const every = Math.max(1, Math.round(seconds.length / FACE_FRAMES))
    let done = 0
    for await (const sample of framesAt(source.video, seconds)) {
      try {
        signal.throwIfAborted()
        if (sample) watcher.add(await reader.read(sample, size))
        if (sample && done % every === 0) await search?.keep(sample, cropReader)
      } finally {
        sample?.close()
      }
      onProgress(++done / seconds.length)
    }
    return { seen: watcher.seen(), search }
  } finally {
    source.dispose()
  }
}

/**
 * Container times of the key frames before the wanted times, which decode at once, unless many of those are the same.
 */
async function quickTimes(source: Source, times: readonly Micros[]): Promise<number[]> {
  const packets = new EncodedPacketSink(source.video)
  const first = await source.video.getFirstTimestamp()
  const wanted = times.map((t) => Math.max(first, source.toContainer(t) + 0.001))
  const keys = new Set<number>()
  for (const t of wanted) keys.add((await packets.getKeyPacket(t, { metadataOnly: true }))?.timestamp ?? t)
  return keys.size >= wanted.length * ENOUGH_KEY_FRAMES ? [...keys] : wanted
}

/** Mouths open and close a few times a second. */
const STIR_EVERY_MICROS = 120_000
/** Longer stretches tell no more. */
const MAX_STIR_LOOKS = 25

async function stirIn(
  source: Source,
  reader: LumaReader,
  size: Size,
  regions: readonly Rect[],
  { fromMicros, toMicros }: { fromMicros: Micros; toMicros: Micros },
): Promise<number[]> {
  const looks = Math.max(2, Math.min(MAX_STIR_LOOKS, Math.floor((toMicros - fromMicros) / STIR_EVERY_MICROS)))
  const first = await source.video.getFirstTimestamp()
  const seconds = Array.from({ length: looks }, (_, i) =>
    Math.max(first, source.toContainer(fromMicros + i * STIR_EVERY_MICROS) + 0.001),
  )
  const sums = regions.map(() => 0)
  let before: Uint8Array | null = null
  for await (const sample of framesAt(source.video, seconds)) {
    if (!sample) continue
    try {
      const now = (await reader.read(sample, size)).slice()
      const last = before
      if (last) regions.forEach((r, i) => (sums[i] = (sums[i] ?? 0) + stirred(last, now, size, r)))
      before = now
    } finally {
      sample.close()
    }
  }
  return sums.map((s) => s / Math.max(1, looks - 1))
}
