import { EncodedPacketSink, type VideoSample } from 'mediabunny'
import { mayBeCut, mayFollowCut, type FrameSignature } from '@/core/detect/frameSignature'
import { firstLooks } from '@/core/detect/regions/firstLooks'
import { facesBetween, goesOn, type AreaSeen } from '@/core/detect/regions/between'
import { movingSubjects } from '@/core/detect/regions/moving'
import { salientPoint } from '@/core/detect/regions/salient'
import { scaleRect, type Point, type Rect } from '@/core/geometry/rect'
import type { Micros } from '@/core/time/micros'
import { explain, quietly } from '@/diagnostics/note'
import { CutFinder, type ShotCut } from '../analyse/cutFinder'
import { CropReader, HALVED_FROM, type DrawCrop } from '../draw/cropReader'
import { smallPicture } from '../draw/smallPicture'
import { FRAME_TOLERANCE_MICROS, FrameCursor } from '../source/frameCursor'
import { claim, Turns } from '../ranks/turns'
import type { Source } from '../source/openSource'
import { WantedTimes } from '../source/wantedTimes'
import { OpenSources, type SourceFile } from '../source/openSources'
import type { AlongOutcome, AlongSample, AlongWorker, SearchArea } from '../workers/along.protocol'
import { FaceFinder } from '../faces/faceFinder'

/** High enough that a region of an eighth of the frame still fills a row of a ribbon. */
const PICTURE_HEIGHT = 216

/** Areas are looked at this wide: what the face model takes in, without reading more pixels than that. */
const AREA_WIDTH = 256
/** What moves is seen as well in much less. */
const SMALL_WIDTH = 64

/** Moments farther apart than this were not next to one another. */
const NEXT_MICROS = 2_500_000

/** Packets the decoder is given while a sample is searched, which takes as long as decoding a dozen. */
const MOST_AHEAD = 14

/** A look is claimed anew with every moment that is looked at, for this long. */
const CLAIM_MS = 250

/** Looks along a highlight: what is in the picture at moments close together, and where the faces are. */
export class AlongService implements AlongWorker {
  private running: AbortController | null = null
  private readonly sources = new OpenSources()
  private finder: Promise<FaceFinder> | null = null

  async look(
    file: SourceFile,
    times: Micros[],
    from: Micros,
    areas: SearchArea[],
    closely: boolean,
    onSample: (sample: AlongSample) => void,
  ): Promise<AlongOutcome> {
    this.running?.abort()
    const abort = new AbortController()
    this.running = abort
    const { signal } = abort
    try {
      const watches = areas.map((a) => new AreaWatch(a))
      const finder = watches.length > 0 ? await (this.finder ??= FaceFinder.open()) : null
      const cuts = await this.sources.use(file, (source) =>
        new Walk(source, times, from, watches, finder, onSample, signal).go(closely),
      )
      const starts = cuts.map(({ micros }) => times.findIndex((t) => t + FRAME_TOLERANCE_MICROS >= micros))
      return {
        kind: 'done',
        cuts: cuts.map(({ micros }) => micros),
        sceneChanges: cuts.filter((c) => c.isSceneChange).map(({ micros }) => micros),
        moving: Object.fromEntries(watches.map((w) => [w.id, w.moving(starts)])),
        salient: Object.fromEntries(watches.map((w) => [w.id, w.salient(starts)])),
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
}

/** One look along a recording, at rising times. */
class Walk {
  private readonly reader = new CropReader()
  private readonly turns = new Turns('looks')
  private readonly cutFinder: CutFinder
  private readonly pictures: (Blob | undefined)[] = []
  /** What the moments that were looked at look like. */
  private readonly signatures: (SignatureSample | undefined)[] = []
  /** Moments at which everybody watched is as at the one looked at before. */
  private readonly stayed = new Set<number>()
  /** Moments at which somebody is not. */
  private readonly lost = new Set<number>()

  constructor(
    private readonly source: Source,
    private readonly times: readonly Micros[],
    /** What comes from here on is looked at first. */
    private readonly from: Micros,
    private readonly watches: readonly AreaWatch[],
    private readonly finder: FaceFinder | null,
    private readonly onSample: (sample: AlongSample) => void,
    private readonly signal: AbortSignal,
  ) {
    this.cutFinder = new CutFinder(source)
  }

  /**
   * Looks at every moment; unless `closely`, at those between others only where somebody came, left or moved. Resolves
   * with the first frames of shots, but for those at which somebody whom it watches stays.
   */
  async go(closely: boolean): Promise<ShotCut[]> {
    // Without anybody to watch only the picture as a whole can tell, and looking takes little.
    if (closely || this.watches.length === 0) {
      await this.lookFromHere(this.times.map((_, i) => i))
      return this.cutsAmong()
    }
    const unclear: number[] = []
    await this.lookFromHere(firstLooks(await this.keysBefore()), (from, to) => {
      const isClear = this.goesOn(from, to)
      if (isClear) this.stayed.add(to)
      else this.lost.add(to)
      for (let i = from + 1; i < to; i++)
        if (isClear) this.fill(i, from, to)
        else unclear.push(i)
    })
    for (const i of unclear) this.lost.add(i)
    await this.lookFromHere(unclear.sort((a, b) => a - b))
    return this.cutsAmong()
  }

  /**
   * Looks at some of the moments, rising: at those from here on, then at those before. `onBoth` is told of each two,
   * one after the other in time, as soon as both were looked at.
   */
  private async lookFromHere(
    indices: readonly number[],
    onBoth: (from: number, to: number) => void = () => {},
  ): Promise<void> {
    const before = indices.filter((i) => this.timeOf(i) < this.from)
    const after = indices.filter((i) => this.timeOf(i) >= this.from)
    const onLooked = (from: number | undefined, to: number | undefined) => {
      if (from !== undefined && to !== undefined) onBoth(from, to)
    }
    await this.lookAt(after, (n) => onLooked(after[n - 1], after[n]))
    await this.lookAt(before, (n) => onLooked(before[n - 1], before[n]))
    onLooked(before.at(-1), after[0])
  }

  /** The key frame that each moment is decoded from, container seconds. */
  private async keysBefore(): Promise<number[]> {
    const packets = new EncodedPacketSink(this.source.video)
    const keys: number[] = []
    for (const t of this.times) {
      this.signal.throwIfAborted()
      const key = await packets.getKeyPacket(Math.max(0, this.source.toContainer(t)), { metadataOnly: true })
      keys.push(key?.timestamp ?? 0)
    }
    return keys
  }

  /** Looks at some of the moments, rising. */
  private async lookAt(indices: readonly number[], onLooked: (n: number) => void): Promise<void> {
    if (indices.length === 0) return
    const wanted = new WantedTimes()
    for (const index of indices) wanted.add(this.timeOf(index) + FRAME_TOLERANCE_MICROS)
    // What lies between is decoded only as far as other frames are made from it.
    const cursor = new FrameCursor(this.source, (from, to) => wanted.isUnseen(from, to), MOST_AHEAD)
    const take = async (n: number): Promise<VideoSample | null> => {
      const index = indices[n]
      if (index === undefined) return null
      wanted.forgetBefore(this.timeOf(index))
      return (await cursor.frameAt(this.timeOf(index)))?.clone() ?? null
    }
    let coming = take(0)
    try {
      for (const [n, index] of indices.entries()) {
        const sample = await coming
        // The next one is decoded while this one is searched.
        coming = take(n + 1)
        coming.catch(quietly('decoding ahead along a highlight'))
        try {
          await this.turn()
          if (sample) await this.lookInto(sample, index)
          onLooked(n)
        } finally {
          sample?.close()
        }
      }
    } finally {
      ;(await coming.catch(() => null))?.close()
      await cursor.close()
    }
  }

  private async turn(): Promise<void> {
    await this.turns.next(this.signal)
    claim('looks', CLAIM_MS)
  }

  private timeOf(index: number): Micros {
    return this.times[index] ?? 0
  }

  /** Looks into the frame of one moment. */
  private async lookInto(sample: VideoSample, index: number): Promise<void> {
    this.reader.begin()
    const whole = await this.reader.readWhole(sample, this.isSmall(sample))
    const faces: AlongSample['faces'] = {}
    for (const watch of this.watches)
      faces[watch.id] = this.finder ? await watch.see(index, this.finder, whole, sample) : []
    const picture = await smallPicture(sample, whole, PICTURE_HEIGHT)
    this.pictures[index] = picture
    const micros = this.source.toRecording(sample.timestamp)
    this.signatures[index] = { micros, signature: this.cutFinder.signature(whole) }
    this.onSample({ index, picture, faces })
  }

  private isSmall({ displayWidth, displayHeight }: VideoSample): boolean {
    return PICTURE_HEIGHT <= HALVED_FROM * displayHeight && this.watches.every((w) => w.isSmall(displayWidth))
  }

  private goesOn(from: number, to: number): boolean {
    const apart = this.timeOf(to) - this.timeOf(from)
    return (
      apart <= NEXT_MICROS &&
      this.pictures[from] !== undefined &&
      this.pictures[to] !== undefined &&
      this.watches.every((w) => w.goesOn(from, to))
    )
  }

  /** Tells of a moment between two that need not be looked at. */
  private fill(index: number, from: number, to: number): void {
    const picture = this.pictures[index - from <= to - index ? from : to]
    if (!picture) return
    const share = (index - from) / (to - from)
    const faces = Object.fromEntries(this.watches.map((w) => [w.id, w.fill(index, from, to, share)]))
    this.onSample({ index, picture, faces })
  }

  /** The cuts between moments that were looked at, one after the other. */
  private async cutsAmong(): Promise<ShotCut[]> {
    const looked = [...this.signatures.entries()].flatMap(([index, s]) => (s ? [{ index, ...s }] : []))
    const worth = new Set(mayFollowCut(looked.map((l) => l.signature)))
    const cuts: ShotCut[] = []
    for (const [n, now] of looked.entries()) {
      const before = looked[n - 1]
      if (!before || now.micros - before.micros > NEXT_MICROS || this.stayed.has(now.index)) continue
      // Whoever has left or moved may be in another scene, however alike it looks.
      const isLost = this.lost.has(now.index) && mayBeCut(before.signature, now.signature)
      if (!isLost && !worth.has(n)) continue
      await this.turn()
      cuts.push(...(await this.cutFinder.between(before.micros, now.micros, this.signal)))
    }
    return cuts
  }
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
  /** What was seen at each moment. */
  private readonly seen: (AreaSeen | undefined)[] = []
  private smallHeight = 0
  private readonly canvas = new OffscreenCanvas(1, 1).getContext('2d', { alpha: false, willReadFrequently: true })

  constructor({ id, area, core }: SearchArea) {
    this.id = id
    this.area = area
    this.core = core
  }

  /** Whether half of a frame's pixels each way are enough for it; `width` of the frame, px. */
  isSmall(width: number): boolean {
    return AREA_WIDTH <= HALVED_FROM * this.area.width * width
  }

  /** Faces in the area at the moment `index`, fractions of the frame. */
  async see(index: number, finder: FaceFinder, whole: DrawCrop, frame: VideoSample): Promise<Rect[]> {
    const core = this.pixels(whole, frame, this.core, SMALL_WIDTH)
    this.smallHeight = core.height
    const found = await finder.find(this.pixels(whole, frame, this.area, AREA_WIDTH))
    const faces = found.map((face) => within(this.area, face))
    this.seen[index] = { picture: lumaOf(core), faces }
    return faces
  }

  /** Whether the same may be taken to go on between two moments. */
  goesOn(from: number, to: number): boolean {
    const [a, b] = [this.seen[from], this.seen[to]]
    return a !== undefined && b !== undefined && goesOn(a, b)
  }

  /** What is taken for true at a moment between two others, `share` of the way; gives the faces. */
  fill(index: number, from: number, to: number, share: number): Rect[] {
    const [a, b] = [this.seen[from], this.seen[to]]
    if (!a || !b) return []
    const faces = facesBetween(a.faces, b.faces, share)
    this.seen[index] = { faces, picture: (share <= 0.5 ? a : b).picture }
    return faces
  }

  /** `starts`: the moments at which shots begin; each is judged by itself. */
  moving(starts: readonly number[]): (Rect | null)[] {
    return this.shots(starts).flatMap((pictures) =>
      movingSubjects(pictures, SMALL_WIDTH, this.smallHeight).map((box) => box && within(this.core, box)),
    )
  }

  salient(starts: readonly number[]): (Point | null)[] {
    return this.shots(starts).flatMap((pictures) =>
      pictures.map((p, i) => {
        const point = salientPoint(p, pictures[i - 1] ?? pictures[i + 1] ?? null, SMALL_WIDTH, this.smallHeight)
        return point && { x: this.core.x + point.x * this.core.width, y: this.core.y + point.y * this.core.height }
      }),
    )
  }

  private shots(starts: readonly number[]): Uint8Array[][] {
    const edges = [0, ...starts.filter((s) => s > 0), this.seen.length]
    return edges
      .slice(1)
      .map((end, n) => this.seen.slice(edges[n], end).flatMap((seen) => (seen ? [seen.picture] : [])))
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
