import { composePassageAt } from '@/core/compose/compose'
import type { Composition, Feed } from '@/core/compose/composition'
import { passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { PanelId, PassageId, RecordingId } from '@/core/model/ids'
import type { Micros } from '@/core/time/micros'
import { drawComposition } from '../drawComposition'
import { SourceSet } from '../source/sourceSet'
import type { OpenReply, PlayAnchor, PreviewEvent, PreviewTarget, PreviewWorker } from '../workers/preview.protocol'

interface Surface {
  target: PreviewTarget
  canvas: OffscreenCanvas
  ctx: OffscreenCanvasRenderingContext2D
}

/** Decodes and draws the Bench's previews: the recording's frame and every shape, from one decoded frame. */
export class PreviewService implements PreviewWorker {
  private readonly surfaces = new Map<string, Surface>()
  private sources: SourceSet | null = null
  private edit: Edit | null = null
  private passageId: PassageId | null = null
  private position: Micros = 0
  private anchor: PlayAnchor | null = null
  private stale = false
  private busy = false
  private onEvent: (event: PreviewEvent) => void = () => {}
  private drawnInSecond = 0
  private secondStarted = 0
  private lastDrawn = ''

  observe(onEvent: (event: PreviewEvent) => void): void {
    this.onEvent = onEvent
  }

  async open(edit: Edit, files: ReadonlyMap<RecordingId, Blob>): Promise<OpenReply> {
    const opened = await SourceSet.openAll(edit, files)
    if (!(opened instanceof SourceSet)) return { ok: false, fileName: opened.fileName }
    const previous = this.sources
    this.sources = opened
    await previous?.close()
    this.redraw()
    return { ok: true }
  }

  setEdit(edit: Edit, passageId: PassageId): void {
    this.edit = edit
    this.passageId = passageId
    this.redraw()
  }

  attach(key: string, target: PreviewTarget, canvas: OffscreenCanvas): void {
    const ctx = canvas.getContext('2d', { alpha: false })
    if (!ctx) return
    this.surfaces.set(key, { target, canvas, ctx })
    this.redraw()
  }

  resize(key: string, width: number, height: number): void {
    const surface = this.surfaces.get(key)
    if (!surface || (surface.canvas.width === width && surface.canvas.height === height)) return
    surface.canvas.width = width
    surface.canvas.height = height
    this.redraw()
  }

  detach(key: string): void {
    this.surfaces.delete(key)
  }

  show(t: Micros): void {
    this.anchor = null
    this.position = t
    this.redraw()
  }

  play(anchor: PlayAnchor): void {
    this.anchor = anchor
    this.secondStarted = performance.now()
    this.drawnInSecond = 0
    this.redraw()
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
        if (this.anchor) this.position = positionOf(this.anchor)
        await this.draw(this.position)
        if (this.anchor) await nextDisplayFrame()
      }
    } finally {
      this.busy = false
    }
  }

  private async draw(t: Micros): Promise<void> {
    const { sources, edit, passageId } = this
    if (!sources || !edit || !passageId || this.surfaces.size === 0) return
    const passage = passageOf(edit, passageId)
    const recording = recordingOf(edit, passage.recordingId)
    const feed: Feed = { recordingId: passage.recordingId, micros: Math.min(Math.max(0, t), recording.durationMicros) }
    try {
      await sources.load([feed], (id) => recordingOf(edit, id).fileName)
    } catch {
      this.onEvent({ kind: 'unreadable', fileName: recording.fileName, atMicros: feed.micros })
      this.anchor = null
      return
    }
    const frame = sources.frameOf(feed)
    const drawn = `${frame?.timestamp ?? 'none'}`
    if (drawn === this.lastDrawn) return
    this.lastDrawn = this.stale ? '' : drawn
    for (const { target, ctx } of this.surfaces.values()) {
      const composition = target.kind === 'frame' ? wholeFrame(feed, recording.video) : composePassageAt(edit, target.shape, passage, feed.micros)
      drawComposition(ctx, composition, sources.frameOf)
    }
    this.countFrame()
    this.onEvent({ kind: 'drawn', micros: feed.micros })
  }

  private countFrame(): void {
    this.drawnInSecond++
    const now = performance.now()
    if (!this.anchor || now - this.secondStarted < 1000) return
    this.onEvent({ kind: 'rate', framesPerSecond: (this.drawnInSecond * 1000) / (now - this.secondStarted) })
    this.drawnInSecond = 0
    this.secondStarted = now
  }
}

function wholeFrame(feed: Feed, { width, height }: { width: number; height: number }): Composition {
  const all = { x: 0, y: 0, width, height }
  return { size: { width, height }, steps: [{ kind: 'picture', panelId: 'frame' as PanelId, feed, crop: all, dest: all }] }
}

function positionOf({ fromMicros, epochMs, rate }: PlayAnchor): Micros {
  return Math.max(0, Math.round(fromMicros + (performance.timeOrigin + performance.now() - epochMs) * 1000 * rate))
}

function nextDisplayFrame(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => resolve()))
}
