import { compose, composePassageAt, nextFeed } from '@/core/compose/compose'
import { laneOf } from '@/core/compose/feeds'
import { wholeFrame } from '@/core/compose/wholeFrame'
import { feedsOf, type Composition, type Feed } from '@/core/compose/composition'
import { passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { Size } from '@/core/geometry/rect'
import type { PassageId, RecordingId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import { clampMicros, type Micros } from '@/core/time/micros'
import { pieceAt, PIECE_MICROS } from '@/core/time/pieces'
import { framesPerSecond as framesPerSecondOf } from '@/core/time/frameRate'
import { onScreenAt, passageAt, timeMapOf, type OnScreen, type Playing, type TimeMap } from '@/core/time/timeMap'
import { note } from '@/diagnostics/note'
import { Composer, type Material, type Target } from '../draw/composer'
import { claim } from '../ranks/turns'
import type { PreviewCopy } from '../source/previewCopies'
import { SourceSet } from '../source/sourceSet'
import { PreviewLevels } from './previewLevels'
import type { OpenReply, PlayAnchor, PreviewEvent, PreviewTarget, PreviewWorker } from '../workers/preview.protocol'

interface Surface {
  target: PreviewTarget
  /** As it is shown, px. */
  wanted: Size
  canvas: OffscreenCanvas
  ctx: OffscreenCanvasRenderingContext2D
}

/**
 * What is shown: a moment of the highlight, or of one passage's recording whether or not it is inside the cut points.
 */
type Shown = { kind: 'output'; micros: Micros } | { kind: 'peek'; passageId: PassageId; recordingMicros: Micros }

/**
 * Below so much of this rate, or of the recording's own where that is slower, playing makes do with smaller pictures.
 */
const SMOOTH_FPS = 30
const ENOUGH = 0.95

/**
 * Where even the smallest come at less than this share of it, every second one is drawn: evenly is better than by
 * chance.
 */
const HALF = 0.6

/** How small they may become, as shares of the sides; a step takes a second to be judged. */
const SHARES = [1, 0.75, 0.5] as const

/** Of a display with sixty pictures a second. */
const DISPLAY_FRAME_MS = 1000 / 60

/** Whoever has gone to a place or changed something goes on doing so, as a rule, within this. */
const HAND_MS = 400

/** Playing, and decoding what is to be seen exactly, are claimed anew with every picture, for this long. */
const CLAIM_MS = 250

/** The first frame after a cut is decoded this long before it is due. */
const READY_AHEAD_MICROS = 900_000

/** Decodes and draws the Bench's previews: the recording's frame and every shape, from frames decoded once. */
export class PreviewService implements PreviewWorker {
  private readonly composer = new Composer('stand-in')
  private readonly surfaces = new Map<string, Surface>()
  private sources: SourceSet | null = null
  private edit: Edit | null = null
  private files: ReadonlyMap<string, Blob> = new Map()
  private readonly levels = new PreviewLevels(() => this.redraw())
  private map: TimeMap = { passages: [], joins: [], lengthMicros: 0 }
  private shown: Shown = { kind: 'output', micros: 0 }
  private madeReady: Feed['lane'] = ''
  private readyBeyond = ''
  private anchor: PlayAnchor | null = null
  /** Whatever is opened again, copies stay good. */
  private readonly copies: PreviewCopy[] = []
  private stale = false
  private busy = false
  private onEvent: (event: PreviewEvent) => void = () => {}
  /** Of their sides that pictures are drawn in while playing. */
  private share = 1
  /** Whether every second picture is left out while playing. */
  private everySecond = false
  private drawnInSecond = 0
  private secondStarted = 0
  private lastDrawn = ''
  private turned = 0

  observe(onEvent: (event: PreviewEvent) => void): void {
    this.onEvent = onEvent
  }

  async open(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<OpenReply> {
    const opened = await SourceSet.openAll(edit, files)
    if (!(opened instanceof SourceSet)) return { ok: false, fileName: opened.fileName }
    const previous = this.sources
    this.files = files
    this.sources = opened
    opened.copies.add(this.copies)
    await previous?.close()
    this.redraw()
    return { ok: true }
  }

  setFiles(files: ReadonlyMap<string, Blob>): void {
    this.files = files
  }

  addCopies(copies: readonly PreviewCopy[]): void {
    this.copies.push(...copies)
    this.sources?.copies.add(copies)
  }

  setEdit(edit: Edit): void {
    claim('hand', HAND_MS)
    this.edit = edit
    this.map = timeMapOf(edit.highlight)
    this.levels.follow(edit, this.files)
    this.redraw()
  }

  setSpeech(speechOf: SpeechOf): void {
    this.levels.setSpeech(speechOf)
  }

  attach(key: string, target: PreviewTarget, canvas: OffscreenCanvas): void {
    const ctx = canvas.getContext('2d', { alpha: false })
    if (!ctx) return
    this.surfaces.set(key, { target, canvas, ctx, wanted: { width: canvas.width, height: canvas.height } })
    this.redraw()
  }

  resize(key: string, width: number, height: number): void {
    const surface = this.surfaces.get(key)
    if (!surface || (surface.wanted.width === width && surface.wanted.height === height)) return
    surface.wanted = { width, height }
    this.fit(surface)
    this.redraw()
  }

  detach(key: string): void {
    this.surfaces.delete(key)
  }

  show(t: Micros): void {
    claim('hand', HAND_MS)
    this.stop()
    this.shown = { kind: 'output', micros: t }
    this.redraw()
  }

  peek(passageId: PassageId, recordingMicros: Micros): void {
    claim('hand', HAND_MS)
    this.stop()
    this.shown = { kind: 'peek', passageId, recordingMicros }
    this.redraw()
  }

  play(anchor: PlayAnchor): void {
    this.anchor = anchor
    this.secondStarted = performance.now()
    this.drawnInSecond = 0
    this.redraw()
  }

  /** Pictures a second that what is played has to show. */
  private ratePlayed(): number {
    const placed = this.edit && this.anchor && passageAt(this.map, positionOf(this.anchor))
    if (!placed || !this.edit || !this.anchor) return SMOOTH_FPS
    return (
      framesPerSecondOf(recordingOf(this.edit, placed.passage.recordingId).video.frameRate) *
      (placed.passage.speedPercent / 100) *
      Math.abs(this.anchor.rate)
    )
  }

  private smoothRate(): number {
    return Math.min(SMOOTH_FPS, this.ratePlayed())
  }

  /** What stands still is shown in all its pixels. */
  private stop(): void {
    this.anchor = null
    this.everySecond = false
    this.shrinkTo(1)
  }

  private shrinkTo(share: number): void {
    if (share === this.share) return
    this.share = share
    for (const surface of this.surfaces.values()) this.fit(surface)
    this.lastDrawn = ''
  }

  private fit({ canvas, wanted }: Surface): void {
    canvas.width = Math.max(1, Math.round(wanted.width * this.share))
    canvas.height = Math.max(1, Math.round(wanted.height * this.share))
  }

  private redraw(): void {
    this.stale = true
    this.lastDrawn = ''
    if (!this.busy) void this.run()
  }

  /** The one loop that decodes and draws: runs while something is stale or playing, never twice at a time. */
  private async run(): Promise<void> {
    this.busy = true
    try {
      while (this.stale || this.anchor) {
        this.stale = false
        if (this.anchor) this.shown = { kind: 'output', micros: positionOf(this.anchor) }
        await this.draw(this.shown)
        if (this.anchor) await this.turn()
      }
    } finally {
      this.busy = false
    }
  }

  /** Until the next picture is due: the display's next frame, or at once when this one took longer than that. */
  private async turn(): Promise<void> {
    if (this.everySecond) {
      const left = this.turned + 2000 / this.smoothRate() - performance.now()
      await new Promise<void>((resolve) => setTimeout(resolve, Math.max(0, left)))
      this.turned = performance.now()
      return
    }
    const late = performance.now() - this.turned > DISPLAY_FRAME_MS
    await (late ? new Promise<void>((resolve) => setTimeout(resolve)) : nextDisplayFrame())
    this.turned = performance.now()
  }

  private async draw(shown: Shown): Promise<void> {
    const { sources, edit } = this
    if (!sources || !edit || this.surfaces.size === 0) return
    claim(this.anchor ? 'playback' : 'rest', CLAIM_MS)
    const pictures = [...this.surfaces.values()].flatMap(({ target, ctx }) => {
      const composition = this.compositionOf(edit, target, shown)
      return composition ? [{ ctx, composition }] : []
    })
    const feeds = uniqueFeeds(pictures.flatMap((p) => feedsOf(p.composition)))
    // Somebody who goes on to another place has seen what was on the way to this one: the place where the walk was
    // broken off need not be drawn as well.
    let [offered, brokenOff] = [false, false]
    // The first picture on the way is always drawn, or nothing would be seen while a key is held; a later one gives
    // way to another place.
    const near = async () => {
      const isFirst = !offered
      offered = true
      await this.drawNear(pictures, sources, edit, shown, () => !isFirst && this.stale)
    }
    const fileNameOf = (id: RecordingId) => recordingOf(edit, id).fileName
    try {
      if (this.anchor) await sources.load(feeds, fileNameOf, undefined, 'copies')
      else {
        // A copy has the frame sooner than the recording itself.
        if (!sources.isClose(feeds) && (await sources.glance(feeds))) {
          await near()
          if (this.stale) return
        }
        const shownNear = offered
        await sources.load(feeds, fileNameOf, {
          near: shownNear ? () => Promise.resolve() : near,
          isOver: () => (brokenOff ||= this.stale),
        })
      }
    } catch (error) {
      note('the preview', error)
      // It may have been a copy: the recording itself is read in its place.
      if (sources.copies.forget(feeds)) return this.redraw()
      const { reading } = sources
      this.onEvent({
        kind: 'unreadable',
        fileName: reading?.fileName ?? edit.highlight.name,
        atMicros: reading?.atMicros ?? 0,
      })
      this.anchor = null
      return
    }
    if (offered && brokenOff) return
    // Nothing has changed when the same frames stand at the same places; on the way through a join the places change.
    const [only] = feeds
    const drawn = only && feeds.length === 1 ? frameKey(sources, only) : ''
    if (drawn !== '' && drawn === this.lastDrawn) return
    this.lastDrawn = this.stale ? '' : drawn
    const isOver = () => offered && this.stale
    await this.composer.draw(pictures, this.materialOf(sources, edit), isOver)
    if (this.stale) this.lastDrawn = ''
    if (isOver()) return
    this.countFrame()
    this.onEvent({ kind: 'drawn', micros: timeOf(shown), exact: !this.stale })
    if (this.anchor && shown.kind === 'output') {
      this.lookAhead(sources, shown.micros)
      for (const feed of feeds) this.lookBeyondPiece(sources, feed)
    }
  }

  /** Draws what is on the way to a moment that takes long to decode. */
  private async drawNear(
    pictures: readonly Target[],
    sources: SourceSet,
    edit: Edit,
    shown: Shown,
    isOver: () => boolean,
  ): Promise<void> {
    await this.composer.draw(pictures, this.materialOf(sources, edit), isOver)
    if (!isOver()) this.onEvent({ kind: 'drawn', micros: timeOf(shown), exact: false })
  }

  private materialOf({ frameOf, imageOf, isFromCopy }: SourceSet, edit: Edit): Material {
    const scaleOf = (feed: Feed) => {
      const frame = isFromCopy(feed) ? frameOf(feed) : null
      return frame ? frame.displayWidth / recordingOf(edit, feed.recordingId).video.width : 1
    }
    return { frameOf, scaleOf, imageOf, figureAt: this.levels.figureAt }
  }

  private compositionOf(edit: Edit, target: PreviewTarget, shown: Shown): Composition | null {
    if (shown.kind === 'peek') {
      const passage = passageOf(edit, shown.passageId)
      return target.kind === 'frame'
        ? wholeFrame(recordingOf(edit, passage.recordingId), shown.recordingMicros, laneOf(passage, 0))
        : composePassageAt(edit, this.map, target.shape, passage, shown.recordingMicros)
    }
    const t = clampMicros(shown.micros, 0, this.map.lengthMicros - 1)
    if (target.kind === 'shape') return compose(edit, this.map, target.shape, t)
    const on = onScreenAt(this.map, t)
    const one = on && mainOf(on)
    if (!one) return null
    const { passage } = one.placed
    // On the same lane as the shapes, so that its frame is decoded once.
    return wholeFrame(recordingOf(edit, passage.recordingId), one.recordingMicros, laneOf(passage, one.run))
  }

  /** Decodes the first frame after the next cut before it is needed. */
  private lookAhead(sources: SourceSet, t: Micros): void {
    const next = nextFeed(this.map, t)
    if (!next || next.startMicros - t > READY_AHEAD_MICROS) return
    const key = `${next.feed.lane} ${next.startMicros}`
    if (key === this.madeReady) return
    this.madeReady = key
    void sources.makeReady(next.feed, next.startMicros - t, 'copies')
  }

  /** The same where a copy's piece ends. */
  private lookBeyondPiece(sources: SourceSet, feed: Feed): void {
    const endMicros = (pieceAt(feed.micros) + 1) * PIECE_MICROS
    if (!sources.isFromCopy(feed) || endMicros - feed.micros > READY_AHEAD_MICROS) return
    const key = `${feed.lane} ${endMicros}`
    if (key === this.readyBeyond) return
    this.readyBeyond = key
    void sources.makeReady({ ...feed, micros: endMicros }, endMicros - feed.micros, 'copies')
  }

  private countFrame(): void {
    this.drawnInSecond++
    const now = performance.now()
    if (!this.anchor || now - this.secondStarted < 1000) return
    const framesPerSecond = (this.drawnInSecond * 1000) / (now - this.secondStarted)
    if (framesPerSecond < ENOUGH * this.smoothRate()) {
      const smaller = SHARES.find((s) => s < this.share)
      if (smaller) this.shrinkTo(smaller)
      else this.everySecond ||= framesPerSecond < HALF * this.smoothRate()
    }
    this.onEvent({ kind: 'rate', framesPerSecond, share: this.share })
    this.drawnInSecond = 0
    this.secondStarted = now
  }
}

const timeOf = (shown: Shown): Micros => (shown.kind === 'output' ? shown.micros : shown.recordingMicros)

/** Tells the frame that a moment shows from all others. */
function frameKey(sources: SourceSet, feed: Feed): string {
  const file = sources.isFromCopy(feed) ? `copy ${pieceAt(feed.micros)}` : 'recording'
  return `${feed.lane} ${file} ${sources.frameOf(feed)?.timestamp ?? 'none'}`
}

function uniqueFeeds(feeds: readonly Feed[]): Feed[] {
  return [...new Map(feeds.map((f) => [`${f.lane} ${f.recordingId} ${f.micros}`, f])).values()]
}

function positionOf({ fromMicros, epochMs, rate }: PlayAnchor): Micros {
  return Math.max(0, Math.round(fromMicros + (performance.timeOrigin + performance.now() - epochMs) * 1000 * rate))
}

function nextDisplayFrame(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => resolve()))
}

/** The one of two joined moments that is seen more of. */
function mainOf(on: OnScreen): Playing {
  if (on.kind !== 'join') return on
  return on.progress < 0.5 ? on.from : on.to
}
