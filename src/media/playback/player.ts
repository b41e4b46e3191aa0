import { proxy, releaseProxy, transfer, wrap, type Remote } from 'comlink'
import type { Edit } from '@/core/model/edit'
import { recordingOf, passageOf } from '@/core/model/edit'
import type { PassageId, RecordingId } from '@/core/model/ids'
import { clampMicros, type Micros } from '@/core/time/micros'
import type { OpenReply, PreviewEvent, PreviewTarget, PreviewWorker } from '../workers/preview.protocol'
import { SoundOut } from './soundOut'

export interface PlayerState {
  kind: 'paused' | 'playing'
  /** Recording seconds per second while playing; negative is backwards. */
  rate: number
  loop: boolean
  /** 0..1; sound is only heard at rate 1. */
  volume: number
}

/**
 * Plays one passage's recording: keeps the clock, lets the sound lead and the preview worker follow. Position is recording
 * time; with `loop` it stays between the passage's cut points. Call `close` when done.
 */
export class Player {
  private readonly worker = new Worker(new URL('../workers/preview.worker.ts', import.meta.url), { type: 'module' })
  private readonly preview: Remote<PreviewWorker> = wrap<PreviewWorker>(this.worker)
  private sound: SoundOut | null = null
  private readonly listeners = new Set<() => void>()
  private readonly positionListeners = new Set<(t: Micros) => void>()
  private edit: Edit | null = null
  private files: ReadonlyMap<RecordingId, Blob> = new Map()
  private passageId: PassageId | null = null
  private position: Micros = 0
  private anchor: { fromMicros: Micros; epochMs: number } | null = null
  private ticking = 0
  private generation = 0
  /** Whoever shows the player may still let go of its canvases after it was closed. */
  private closed = false
  private state: PlayerState = { kind: 'paused', rate: 1, loop: true, volume: 0.5 }

  observe(onEvent: (event: PreviewEvent) => void): void {
    void this.preview.observe(proxy(onEvent))
  }

  getState = (): PlayerState => this.state

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Calls back with the position at every display frame while it moves; once at subscription. */
  onPosition(listener: (t: Micros) => void): () => void {
    this.positionListeners.add(listener)
    listener(this.position)
    return () => this.positionListeners.delete(listener)
  }

  get positionMicros(): Micros {
    return this.position
  }

  async open(edit: Edit, passageId: PassageId, files: ReadonlyMap<RecordingId, Blob>): Promise<OpenReply> {
    this.files = files
    this.sound?.stop()
    this.sound = null
    this.setEdit(edit, passageId)
    const reply = await this.preview.open(edit, files)
    if (reply.ok) this.seek(passageOf(edit, passageId).inMicros)
    return reply
  }

  setEdit(edit: Edit, passageId: PassageId): void {
    if (this.closed) return
    this.edit = edit
    this.passageId = passageId
    void this.preview.setEdit(edit, passageId)
  }

  attach(key: string, target: PreviewTarget, canvas: HTMLCanvasElement): void {
    const offscreen = canvas.transferControlToOffscreen()
    void this.preview.attach(key, target, transfer(offscreen, [offscreen]))
  }

  resize(key: string, width: number, height: number): void {
    if (!this.closed) void this.preview.resize(key, width, height)
  }

  detach(key: string): void {
    if (!this.closed) void this.preview.detach(key)
  }

  /** Goes to a moment; while playing, playing goes on from there. */
  seek(t: Micros): void {
    this.move(clampMicros(Math.round(t), 0, this.lastMoment()))
    if (this.state.kind === 'playing') void this.play(this.state.rate)
    else void this.preview.show(this.position)
  }

  async play(rate = 1): Promise<void> {
    const generation = ++this.generation
    const range = this.loopRange()
    if (rate > 0 && (this.position >= range.to || (this.state.loop && this.position < range.from))) this.move(range.from)
    this.setState({ kind: 'playing', rate })
    const sound = rate === 1 ? await this.openSound() : null
    if (generation !== this.generation) return
    this.sound?.stop()
    const epochMs = sound ? await sound.start(this.position) : performance.timeOrigin + performance.now()
    if (generation !== this.generation) return
    this.anchor = { fromMicros: this.position, epochMs }
    void this.preview.play({ fromMicros: this.position, epochMs, rate })
    cancelAnimationFrame(this.ticking)
    this.ticking = requestAnimationFrame(this.tick)
  }

  pause(): void {
    this.generation++
    cancelAnimationFrame(this.ticking)
    this.sound?.stop()
    this.anchor = null
    if (this.state.kind === 'paused') return
    this.setState({ kind: 'paused', rate: 1 })
    void this.preview.show(this.position)
  }

  toggle(): void {
    if (this.state.kind === 'playing') this.pause()
    else void this.play()
  }

  setLoop(loop: boolean): void {
    this.setState({ loop })
  }

  setVolume(volume: number): void {
    this.setState({ volume })
    this.sound?.setVolume(volume)
  }

  close(): void {
    this.pause()
    this.closed = true
    this.listeners.clear()
    this.positionListeners.clear()
    void this.sound?.close()
    this.preview[releaseProxy]()
    this.worker.terminate()
  }

  private tick = (): void => {
    const { anchor, state } = this
    if (!anchor) return
    const now = performance.timeOrigin + performance.now()
    const t = Math.round(anchor.fromMicros + Math.max(0, now - anchor.epochMs) * 1000 * state.rate)
    const range = this.loopRange()
    if (t >= range.to && state.rate > 0) {
      if (state.loop) {
        this.move(range.from)
        void this.play(state.rate)
        return
      }
      this.move(range.to)
      this.pause()
      return
    }
    if (t <= 0 && state.rate < 0) {
      this.move(0)
      this.pause()
      return
    }
    this.move(t)
    this.ticking = requestAnimationFrame(this.tick)
  }

  private move(t: Micros): void {
    this.position = t
    for (const listener of this.positionListeners) listener(t)
  }

  private setState(change: Partial<PlayerState>): void {
    this.state = { ...this.state, ...change }
    for (const listener of this.listeners) listener()
  }

  private loopRange(): { from: Micros; to: Micros } {
    if (!this.edit || !this.passageId) return { from: 0, to: 0 }
    const { inMicros, outMicros } = passageOf(this.edit, this.passageId)
    const inside = this.position >= inMicros && this.position < outMicros
    return this.state.loop || inside ? { from: inMicros, to: outMicros } : { from: 0, to: this.lastMoment() }
  }

  private lastMoment(): Micros {
    if (!this.edit || !this.passageId) return 0
    return recordingOf(this.edit, passageOf(this.edit, this.passageId).recordingId).durationMicros
  }

  /** Opened at the first play, since a page may only make sound after a person has done something on it. */
  private async openSound(): Promise<SoundOut | null> {
    if (this.sound) return this.sound
    if (!this.edit || !this.passageId) return null
    const recording = recordingOf(this.edit, passageOf(this.edit, this.passageId).recordingId)
    const file = this.files.get(recording.id)
    if (!file || !recording.sound) return null
    const sound = new SoundOut()
    sound.setVolume(this.state.volume)
    await sound.open({ file, originMicros: recording.originMicros })
    this.sound = sound
    return sound
  }
}
