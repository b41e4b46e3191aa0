import { PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'
import { concatenated } from './concatenated'

/** Output frames made at a time: 15 ms at 48 kHz, a little more than a period of a low voice. */
const HOP = 720

/** How far a piece may be moved to fit what came before, frames either way. */
const SEARCH = 480

/** Frames. */
const MIN_DROP = 48_000

/** How a piece comes in over the one before; the two add up to 1. */
const FADE = Float32Array.from({ length: HOP }, (_, i) => Math.sin(((i + 0.5) / HOP) * (Math.PI / 2)) ** 2)

/**
 * Changes the speed of interleaved stereo without changing its pitch: waveform-similarity overlap-add (Verhelst and
 * Roelands, ICASSP 1993). Output frame n is input frame n · speed to within 10 ms plus half a hop, however long it
 * runs: nothing drifts. `push` input as it comes; `end` once it is all there.
 */
export class TimeStretch {
  private input: Float32Array = new Float32Array(0)
  /** Index of the first frame still held in `input`. */
  private first = 0
  private piece = 0
  private ended = false
  private tail: Float32Array | null = null

  /** `speed`: input frames per output frame, 0.25..4. */
  constructor(
    private readonly speed: number,
    private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC,
  ) {
    if (!(speed >= 0.25 && speed <= 4)) throw new RangeError(`speed: ${speed} is not between 0.25 and 4`)
  }

  /** Takes more input and gives what output it allows. */
  push(block: Float32Array): Float32Array {
    this.input = concatenated([this.input, block])
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
    const tail = this.tail ?? this.slice(0, HOP)
    const crossed = new Float32Array(HOP * 2)
    // The start near `nominal` whose beginning is most like what would have come: nearly all that changing speed costs.
    const heard = this.slice(nominal - SEARCH, 2 * SEARCH + 2 * HOP)
    const at = this.arithmetic.goOn(heard, tail, FADE, crossed) + HOP
    this.tail = heard.slice(2 * at, 2 * (at + HOP))
    this.piece++
    this.forget(Math.round((this.piece + 1) * HOP * this.speed) - HOP - SEARCH)
    return crossed
  }

  /** `count` frames from input frame `at` on, borrowed; silence outside. */
  private slice(at: number, count: number): Float32Array {
    const from = (at - this.first) * 2
    const to = from + count * 2
    if (from >= 0 && to <= this.input.length) return this.input.subarray(from, to)
    const out = new Float32Array(count * 2)
    if (to > 0) out.set(this.input.subarray(Math.max(0, from), to), Math.max(0, -from))
    return out
  }

  /** Lets go of input in large pieces: what is held on to is copied each time. */
  private forget(before: number): void {
    const held = this.input.length / 2
    const drop = Math.min(Math.max(0, before - this.first), held)
    if (drop < Math.max(MIN_DROP, held / 2)) return
    this.input = this.input.slice(drop * 2)
    this.first += drop
  }
}
