import type { VideoSample } from 'mediabunny'
import { isCut, type FrameSignature } from '@/core/detect/frameSignature'
import { movingSubjects } from '@/core/detect/regions/moving'
import { salientPoint } from '@/core/detect/regions/salient'
import { scaleRect, type Point, type Rect } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import { explain } from '@/diagnostics/note'
import { CutFinder } from '../analyse/cutFinder'
import { CropReader, type DrawCrop } from '../draw/cropReader'
import { smallPicture } from '../draw/smallPicture'
import { framesAt } from '../source/framesAt'
import type { Source } from '../source/openSource'
import { OpenSources, type SourceFile } from '../source/openSources'
import type { AlongOutcome, AlongSample, AlongWorker, SearchArea } from '../workers/along.protocol'
import { FaceFinder } from '../faces/faceFinder'

/** High enough that a region of an eighth of the frame still fills a row of a ribbon. */
const PICTURE_HEIGHT = 216

/** Areas are looked at this wide: what the face model takes in, without reading more pixels than that. */
const AREA_WIDTH = 320
/** What moves is seen as well in much less. */
const SMALL_WIDTH = 64

/** Whoever goes to another place needs the machine for a moment. */
const GIVES_WAY_MS = 1000

/** Looks along a highlight: what is in the picture at moments close together, and where the faces are. */
export class AlongService implements AlongWorker {
  private running: AbortController | null = null
  private readonly sources = new OpenSources()
  private finder: Promise<FaceFinder> | null = null
  private heldUntil = 0

  async look(
    file: SourceFile,
    times: Micros[],
    areas: SearchArea[],
    withCuts: boolean,
    onSample: (sample: AlongSample) => void,
  ): Promise<AlongOutcome> {
    this.running?.abort()
    const abort = new AbortController()
    this.running = abort
    const { signal } = abort
    try {
      const watches = areas.map((a) => new AreaWatch(a))
      const finder = watches.length > 0 ? await (this.finder ??= FaceFinder.open()) : null
      const see = async (whole: DrawCrop, frame: VideoSample) => {
        const faces: AlongSample['faces'] = {}
        for (const watch of watches) faces[watch.id] = finder ? await watch.see(finder, whole, frame) : []
        return faces
      }
      const cuts = await this.sources.use(file, (source) =>
        walk(source, times, withCuts, see, onSample, signal, () => this.held()),
      )
      return {
        kind: 'done',
        cuts,
        moving: Object.fromEntries(watches.map((w) => [w.id, w.moving()])),
        salient: Object.fromEntries(watches.map((w) => [w.id, w.salient()])),
      }
    } catch (error) {
      if (signal.aborted) return { kind: 'stopped' }
      this.finder = null
      return { kind: 'failed', detail: explain('a look along a highlight', error) }
    } finally {
      if (this.running === abort) this.running = null
    }
  }

  stop(): void {
    this.running?.abort()
  }

  giveWay(): void {
    this.heldUntil = performance.now() + GIVES_WAY_MS
  }

  private async held(): Promise<void> {
    for (let rest = this.heldUntil - performance.now(); rest > 0; rest = this.heldUntil - performance.now())
      await new Promise((resolve) => setTimeout(resolve, rest))
  }
}

/**
 * Gives every sample, each when it is its `turn`, to `see` and `onSample`; resolves with the first frames of shots,
 * when they are wanted.
 */
async function walk(
  source: Source,
  times: readonly Micros[],
  withCuts: boolean,
  see: (whole: DrawCrop, frame: VideoSample) => Promise<AlongSample['faces']>,
  onSample: (sample: AlongSample) => void,
  signal: AbortSignal,
  turn: () => Promise<void>,
): Promise<Micros[]> {
  const reader = new CropReader()
  const cutFinder = new CutFinder(source)
  const changed: { from: SignatureSample; to: Micros }[] = []
  let before: SignatureSample | null = null
  let index = 0
  const first = await source.video.getFirstTimestamp()
  const seconds = times.map((t) => Math.max(first, source.toContainer(t) + 0.001))
  for await (const sample of framesAt(source.video, seconds)) {
    try {
      await turn()
      signal.throwIfAborted()
      if (sample) {
        reader.begin()
        const whole = await reader.readWhole(sample)
        const faces = await see(whole, sample)
        const now: SignatureSample = {
          micros: source.toRecording(sample.timestamp),
          signature: cutFinder.signature(whole),
        }
        if (before && isCut(before.signature, now.signature)) changed.push({ from: before, to: now.micros })
        before = now
        onSample({ index, picture: await smallPicture(sample, whole, PICTURE_HEIGHT), faces })
      }
      index++
    } finally {
      sample?.close()
    }
  }
  const cuts: Micros[] = []
  if (withCuts)
    for (const { from, to } of changed) cuts.push(...(await cutFinder.between(from.micros, to, from.signature, signal)))
  return cuts
}

interface SignatureSample {
  micros: Micros
  signature: FrameSignature
}

/** One area through all samples. */
class AreaWatch {
  readonly id: string
  private readonly area: Rect
  private readonly core: Rect
  private readonly small: Uint8Array[] = []
  private smallHeight = 0
  private readonly canvas = new OffscreenCanvas(1, 1).getContext('2d', { alpha: false, willReadFrequently: true })

  constructor({ id, area, core }: SearchArea) {
    this.id = id
    this.area = area
    this.core = core
  }

  /** Faces in the area, fractions of the frame. */
  async see(finder: FaceFinder, whole: DrawCrop, frame: VideoSample): Promise<Rect[]> {
    const core = this.pixels(whole, frame, this.core, SMALL_WIDTH)
    this.smallHeight = core.height
    this.small.push(lumaOf(core))
    return (await finder.find(this.pixels(whole, frame, this.area, AREA_WIDTH))).map((face) => within(this.area, face))
  }

  moving(): (Rect | null)[] {
    return movingSubjects(this.small, SMALL_WIDTH, this.smallHeight).map((box) => box && within(this.core, box))
  }

  salient(): (Point | null)[] {
    return this.small.map((p, i) => {
      const point = salientPoint(p, this.small[i - 1] ?? null, SMALL_WIDTH, this.smallHeight)
      return point && { x: this.core.x + point.x * this.core.width, y: this.core.y + point.y * this.core.height }
    })
  }

  private pixels(whole: DrawCrop, { displayWidth, displayHeight }: VideoSample, area: Rect, width: number): ImageData {
    if (!this.canvas) throw new Error('no 2D canvas')
    const part = {
      x: area.x * displayWidth,
      y: area.y * displayHeight,
      width: area.width * displayWidth,
      height: area.height * displayHeight,
    }
    const height = Math.max(16, Math.round((width * part.height) / part.width))
    Object.assign(this.canvas.canvas, { width, height })
    whole(this.canvas, { x: 0, y: 0, width, height }, part)
    return this.canvas.getImageData(0, 0, width, height)
  }
}

/** A box in shares of `outer` as fractions of what `outer` is in. */
function within(outer: Rect, box: Rect): Rect {
  const { x, y, width, height } = scaleRect(box, outer.width, outer.height)
  return { x: outer.x + x, y: outer.y + y, width, height }
}

function lumaOf({ data }: ImageData): Uint8Array {
  return Uint8Array.from(
    { length: data.length / 4 },
    (_, i) => (13933 * (data[4 * i] ?? 0) + 46871 * (data[4 * i + 1] ?? 0) + 4732 * (data[4 * i + 2] ?? 0)) >> 16,
  )
}
