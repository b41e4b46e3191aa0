import { proxy, transfer } from 'comlink'
import type { Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import { clampMicros, type Micros } from '@/core/time/micros'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import type { PreviewCopy } from '../source/previewCopies'
import type { OpenReply, PreviewEvent, PreviewTarget, PreviewWorker } from '../workers/preview.protocol'
import { startWorker } from '../workers/startWorker'
import { SoundOut } from './soundOut'

export interface PlayerState {
  kind: 'paused' | 'playing'
  /** Output seconds per second while playing; negative is backwards. */
  rate: number
  loop: boolean
  /** 0..1; sound is only heard at rate 1. */
  volume: number
}

/** A stretch of the output clock, end-exclusive. */
export interface OutputRange {
  fromMicros: Micros
  toMicros: Micros
}

/**
 * While playing, listeners are told this often: a clock and a line that move need no more, and without a GPU each
 * move has the whole page drawn anew.
 */
const TELL_EVERY_MS = 80

/** As fast as it is ever played. */
const MAX_SHUTTLE_RATE = 8

const NO_TIME: TimeMap = { passages: [], joins: [], lengthMicros: 0 }

/**
 * Plays a highlight: keeps the clock, lets the sound lead and the preview worker follow. Position is output time.
 * `peek` shows a moment of a passage's recording that may lie beyond its cut points. Call `close` when done.
 */
export class Player {
  private readonly worker = startWorker<PreviewWorker>(
    () => new Worker(new URL('../workers/preview.worker.ts', import.meta.url), { type: 'module' }),
  )
  private readonly preview = this.worker.remote
  private sound: SoundOut | null = null
  private readonly listeners = new Set<() => void>()
  private readonly positionListeners = new Set<(t: Micros) => void>()
  private edit: Edit | null = null
  private speechOf: SpeechOf = new Map()
  private map: TimeMap = NO_TIME
  private recorded: { key: string; canvas: HTMLCanvasElement } | null = null
  private files: ReadonlyMap<string, Blob> = new Map()
  private position: Micros = 0
  private range: OutputRange | null = null
  private anchor: { fromMicros: Micros; epochMs: number } | null = null
  private ticking: ReturnType<typeof setTimeout> | undefined
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

  /**
   * Calls back with the position about twelve times a second while it plays, and whenever it is moved; once at
   * subscription. `positionMicros` is always exact.
   */
  onPosition(listener: (t: Micros) => void): () => void {
    this.positionListeners.add(listener)
    listener(this.position)
    return () => this.positionListeners.delete(listener)
  }

  get lengthMicros(): Micros {
    return this.map.lengthMicros
  }

  get positionMicros(): Micros {
    const { fromMicros, toMicros } = this.playRange()
    return this.anchor
      ? clampMicros(this.played(), Math.min(fromMicros, this.position), Math.max(toMicros, this.position))
      : this.position
  }

  /** `files`: the bytes of the edit's recordings and sound files, by id. */
  async open(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<OpenReply> {
    this.files = files
    this.sound?.setFiles(files)
    this.setEdit(edit)
    return this.preview.open(edit, files)
  }

  /** Opens sound files that have come to an edit; its pictures stay open. */
  openSounds(edit: Edit, files: ReadonlyMap<string, Blob>): void {
    this.files = files
    this.sound?.setFiles(files)
    void this.preview.setFiles(files)
    this.setEdit(edit)
  }

  /** Takes preview copies of its recordings that have come. */
  addCopies(copies: readonly PreviewCopy[]): void {
    if (!this.closed) void this.preview.addCopies(copies)
  }

  setEdit(edit: Edit): void {
    if (this.closed) return
    this.edit = edit
    this.map = timeMapOf(edit.highlight)
    this.sound?.setEdit(edit, this.speechOf)
    void this.preview.setEdit(edit)
    if (this.position > this.map.lengthMicros) this.move(this.map.lengthMicros)
    if (this.state.kind === 'playing') void this.play(this.state.rate)
  }

  /** Where the recordings hold speech; beds go down under it. */
  setSpeech(speechOf: SpeechOf): void {
    this.speechOf = speechOf
    if (!this.closed) void this.preview.setSpeech(speechOf)
    if (this.edit) this.sound?.setEdit(this.edit, speechOf)
  }

  /** What is played and looped instead of the whole highlight; null for the whole. */
  setRange(range: OutputRange | null): void {
    this.range = range
  }

  /** What is on the screen of the recording as it is; null when nothing shows it. */
  get recordedPicture(): HTMLCanvasElement | null {
    return this.recorded?.canvas ?? null
  }

  attach(key: string, target: PreviewTarget, canvas: HTMLCanvasElement): void {
    if (target.kind === 'frame') this.recorded = { key, canvas }
    const offscreen = canvas.transferControlToOffscreen()
    void this.preview.attach(key, target, transfer(offscreen, [offscreen]))
  }

  resize(key: string, width: number, height: number): void {
    if (!this.closed) void this.preview.resize(key, width, height)
  }

  detach(key: string): void {
    if (this.recorded?.key === key) this.recorded = null
    if (!this.closed) void this.preview.detach(key)
  }

  /** Goes to a moment; while playing, playing goes on from there. */
  seek(t: Micros): void {
    const to = clampMicros(Math.round(t), 0, this.map.lengthMicros)
    this.anchor = null
    // The worker is asked first: what follows the position lays the page out anew, and the picture need not wait for
    // that.
    if (this.state.kind === 'paused') void this.preview.show(to)
    this.move(to)
    if (this.state.kind === 'playing') void this.play(this.state.rate)
  }

  /** Goes to a moment and lets it be heard, as the hand moves. */
  scrub(t: Micros): void {
    this.seek(t)
    if (this.state.kind === 'paused') this.openSound()?.scrub(this.position)
  }

  /**
   * Shows and lets be heard a moment of a passage's recording, which may lie beyond its cut points. The position
   * stays.
   */
  peek(passageId: PassageId, recordingMicros: Micros): void {
    this.pause()
    void this.preview.peek(passageId, recordingMicros)
    this.openSound()?.scrubPassage(passageId, recordingMicros)
  }

  async play(rate = 1): Promise<void> {
    const generation = ++this.generation
    this.position = this.positionMicros
    this.anchor = null
    const { fromMicros, toMicros } = this.playRange()
    if (rate > 0 && (this.position >= toMicros - 1 || (this.state.loop && this.position < fromMicros)))
      this.move(fromMicros)
    this.setState({ kind: 'playing', rate })
    const sound = rate === 1 ? this.openSound() : null
    this.sound?.stop()
    const epochMs = sound ? await sound.start(this.position) : performance.timeOrigin + performance.now()
    if (generation !== this.generation) return
    this.anchor = { fromMicros: this.position, epochMs }
    void this.preview.play({ fromMicros: this.position, epochMs, rate })
    this.tick()
  }

  pause(): void {
    this.generation++
    this.position = this.positionMicros
    clearTimeout(this.ticking)
    this.sound?.stop()
    this.anchor = null
    if (this.state.kind === 'paused') return
    this.setState({ kind: 'paused', rate: 1 })
    void this.preview.show(this.position)
  }

  /** Plays in a direction; asked for again while it does, twice as fast each time. */
  shuttle(direction: 1 | -1): void {
    const { kind, rate } = this.state
    const isGoing = kind === 'playing' && Math.sign(rate) === direction
    void this.play(direction * (isGoing ? Math.min(MAX_SHUTTLE_RATE, Math.abs(rate) * 2) : 1))
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
    this.worker.end()
  }

  /** Where the clock stands while playing, whether or not that is inside what is played. */
  private played(): Micros {
    if (!this.anchor) return this.position
    const now = performance.timeOrigin + performance.now()
    return Math.round(this.anchor.fromMicros + Math.max(0, now - this.anchor.epochMs) * 1000 * this.state.rate)
  }

  private tick = (): void => {
    clearTimeout(this.ticking)
    if (!this.anchor) return
    const { rate, loop } = this.state
    const t = this.played()
    const { fromMicros, toMicros } = this.playRange()
    const atEnd = rate > 0 ? t >= toMicros : t <= 0
    if (atEnd) {
      this.anchor = null
      const end = loop ? fromMicros : toMicros
      this.move(rate < 0 ? 0 : end)
      if (loop && rate > 0) void this.play(rate)
      else this.pause()
      return
    }
    this.move(t)
    const msLeft = (rate > 0 ? toMicros - t : t) / 1000 / Math.abs(rate)
    this.ticking = setTimeout(this.tick, Math.min(TELL_EVERY_MS, msLeft))
  }

  private move(t: Micros): void {
    this.position = t
    for (const listener of this.positionListeners) listener(t)
  }

  private setState(change: Partial<PlayerState>): void {
    this.state = { ...this.state, ...change }
    for (const listener of this.listeners) listener()
  }

  private playRange(): OutputRange {
    return this.range ?? { fromMicros: 0, toMicros: this.map.lengthMicros }
  }

  /** Opened at the first sound, since a page may only make sound after a person has done something on it. */
  private openSound(): SoundOut | null {
    if (this.sound || !this.edit || this.closed) return this.sound
    this.sound = new SoundOut(this.files)
    this.sound.setVolume(this.state.volume)
    this.sound.setEdit(this.edit, this.speechOf)
    return this.sound
  }
}
