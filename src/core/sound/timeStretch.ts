import { PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'
import { concatenated } from './concatenated'

/** Output frames made at a time: 15 ms at 48 kHz, a little more than a period of a low voice. */
const HOP = 720

/** How far a piece may be moved to fit what came before, frames either way. */
const SEARCH = 480

/** Candidates are compared in means of so many frames first (6 kHz: a voice's pitch and vowels); what is best there is refined in two steps. */
const COARSE = 8
const FINER = 2

/** How a piece comes in over the one before; the two add up to 1. */
const FADE = Float64Array.from({ length: HOP }, (_, i) => Math.sin(((i + 0.5) / HOP) * (Math.PI / 2)) ** 2)

/**
 * Changes the speed of interleaved stereo without changing its pitch: waveform-similarity overlap-add (Verhelst and Roelands,
 * ICASSP 1993). Output frame n is input frame n · speed to within 10 ms plus half a hop, however long it runs: nothing drifts.
 * `push` input as it comes; `end` once it is all there.
 */
export class TimeStretch {
  private input: Float32Array = new Float32Array(0)
  /** Both channels of `input` added up. */
  private mono: Float32Array = new Float32Array(0)
  /** Index of the first frame still held in `input`. */
  private first = 0
  private piece = 0
  private ended = false
  private tail: Float32Array | null = null

  /** `speed`: input frames per output frame, 0.25..4. */
  constructor(private readonly speed: number, private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC) {
    if (!(speed >= 0.25 && speed <= 4)) throw new RangeError(`speed: ${speed} is not between 0.25 and 4`)
  }

  /** Takes more input and gives what output it allows. */
  push(block: Float32Array): Float32Array {
    const held = this.mono.length
    this.input = concatenated([this.input, block])
    this.mono = concatenated([this.mono, new Float32Array(block.length / 2)])
    for (let i = 0; i * 2 < block.length; i++) this.mono[held + i] = (block[i * 2] as number) + (block[i * 2 + 1] as number)
    return this.produce()
  }

  /** The rest of the output; beyond the input's end it is silence. */
  end(): Float32Array {
    this.ended = true
    return this.produce()
  }

  private get frames(): number {
    return this.first + this.input.length / 2
  }

  private produce(): Float32Array {
    const out: Float32Array[] = []
    for (;;) {
      const nominal = Math.round((this.piece + 1) * HOP * this.speed) - HOP
      const needed = nominal + SEARCH + 2 * HOP
      if (this.ended ? this.piece * HOP * this.speed >= this.frames : needed > this.frames) break
      out.push(this.nextPiece(nominal))
    }
    return concatenated(out)
  }

  private nextPiece(nominal: number): Float32Array {
    this.tail ??= this.slice(0, HOP)
    const at = this.piece === 0 && this.speed === 1 ? 0 : this.bestFit(nominal, this.tail)
    const head = this.slice(at, HOP)
    const mixed = new Float32Array(HOP * 2)
    for (let i = 0; i < HOP; i++) {
      const w = FADE[i] as number
      mixed[i * 2] = (this.tail[i * 2] as number) * (1 - w) + (head[i * 2] as number) * w
      mixed[i * 2 + 1] = (this.tail[i * 2 + 1] as number) * (1 - w) + (head[i * 2 + 1] as number) * w
    }
    this.tail = this.slice(at + HOP, HOP)
    this.piece++
    this.forget(Math.round((this.piece + 1) * HOP * this.speed) - HOP - SEARCH)
    return mixed
  }

  /** The start near `nominal` whose beginning is most like `like` (normalised cross-correlation). This is nearly all that changing speed costs. */
  private bestFit(nominal: number, like: Float32Array): number {
    const wanted = new Float32Array(HOP)
    for (let i = 0; i < HOP; i++) wanted[i] = (like[i * 2] as number) + (like[i * 2 + 1] as number)
    const rough = this.bestOf(wanted, nominal - SEARCH, nominal + SEARCH, COARSE)
    const near = this.bestOf(wanted, Math.max(nominal - SEARCH, rough - COARSE), Math.min(nominal + SEARCH, rough + COARSE), FINER)
    return this.bestOf(wanted, Math.max(nominal - SEARCH, near - FINER), Math.min(nominal + SEARCH, near + FINER), 1)
  }

  /** The start from `from` to `to` that is most like `wanted`, comparing every `step`th start in means of `step` frames. */
  private bestOf(wanted: Float32Array, from: number, to: number, step: number): number {
    const like = this.meansOf(wanted, 0, Math.ceil(HOP / step), step)
    const starts = Math.floor((to - from) / step) + 1
    // All that is compared lies on one grid: gathered once, starts are neighbours.
    const heard = this.meansOf(this.mono, from - this.first, starts + like.length, step)
    return from + this.arithmetic.bestOf(heard, starts, like) * step
  }

  /** `count` means of `step` samples each, from sample `from` on; silence outside. */
  private meansOf(samples: Float32Array, from: number, count: number, step: number): Float32Array {
    const means = new Float32Array(count)
    const first = Math.max(0, Math.ceil(-from / step))
    const last = Math.min(count, Math.floor((samples.length - from) / step))
    if (last > first) this.arithmetic.means(samples.subarray(from + first * step, from + last * step), step, means.subarray(first, last))
    return means
  }

  /** `count` frames from input frame `at` on; silence outside. */
  private slice(at: number, count: number): Float32Array {
    const out = new Float32Array(count * 2)
    const from = (at - this.first) * 2
    if (from + count * 2 > 0) out.set(this.input.subarray(Math.max(0, from), from + count * 2), Math.max(0, -from))
    return out
  }

  private forget(before: number): void {
    const drop = Math.min(Math.max(0, before - this.first), this.input.length / 2)
    if (drop < 48_000) return
    this.input = this.input.slice(drop * 2)
    this.mono = this.mono.slice(drop)
    this.first += drop
  }
}
