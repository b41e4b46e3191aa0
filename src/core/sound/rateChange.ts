import { PLAIN_ARITHMETIC, type SoundArithmetic } from './arithmetic'

/**
 * Samples of the slower rate that one looks at: what is passed reaches to 0.9 of its Nyquist frequency, and 100 dB
 * are gone from a little above it.
 */
const SPAN = 96

/** Where the filter is at one half, in shares of the slower rate's Nyquist frequency. */
const CUTOFF = 0.96

/** Of the Kaiser window: 100 dB. */
const BETA = 10.06

/** A low-pass filter in `up` phases, one for each place between two samples at which one of another rate may lie. */
export interface RateFilter {
  /** The other rate has `up` samples where this one has `down`. */
  up: number
  down: number
  /** Samples of this rate that each looks at, a multiple of 8: so many less one half before it and so many behind. */
  taps: number
  /** `taps` of each phase, the oldest sample's first; each phase adds up to 1. */
  coefs: Float32Array
}

/**
 * The filter from one rate to another, both whole numbers of samples a second. Source: polyphase interpolation by a
 * windowed sinc (Crochiere and Rabiner, 1983).
 */
export function rateFilter(from: number, to: number): RateFilter {
  const key = `${from} ${to}`
  const filter = kept.get(key) ?? builtFilter(from, to)
  // The one that was used last is let go of last.
  kept.delete(key)
  kept.set(key, filter)
  for (const [oldest] of kept) if (kept.size > MAX_KEPT) kept.delete(oldest)
  return filter
}

/** Filters that were built: every seek in a sound file begins anew. */
const kept = new Map<string, RateFilter>()
const MAX_KEPT = 3

function builtFilter(from: number, to: number): RateFilter {
  const common = gcd(from, to)
  const [up, down] = [to / common, from / common]
  const slower = Math.min(1, to / from)
  const taps = 8 * Math.ceil(SPAN / slower / 8)
  const coefs = new Float32Array(up * taps)
  for (let phase = 0; phase < up; phase++) {
    const at = (k: number) => k - (taps / 2 - 1) - phase / up
    const values = Array.from({ length: taps }, (_, k) => sinc(CUTOFF * slower * at(k)) * kaiser(at(k) / (taps / 2)))
    const sum = values.reduce((a, b) => a + b, 0)
    for (let k = 0; k < taps; k++) coefs[phase * taps + k] = (values[k] as number) / sum
  }
  return { up, down, taps, coefs }
}

/**
 * Brings interleaved stereo from one rate to another, block after block; what comes out lies at the same time as what
 * went in.
 */
export class RateChange {
  private readonly filter: RateFilter
  /** Frames that are still looked at; before the first there is silence. There is room behind them. */
  private heard: Float32Array<ArrayBuffer>
  private frames: number
  /** How far behind the first of them the next one looks, in frames of this rate divided by `up`. */
  private next = 0
  private out = new Float32Array(0)

  constructor(
    from: number,
    to: number,
    private readonly arithmetic: SoundArithmetic = PLAIN_ARITHMETIC,
  ) {
    this.filter = rateFilter(from, to)
    this.frames = this.filter.taps / 2 - 1
    this.heard = new Float32Array(2 * this.frames)
  }

  /** All that can be told now; it is good until more is pushed. */
  push(stereo: Float32Array): Float32Array {
    const { up, down, taps } = this.filter
    const before = this.heard.subarray(0, 2 * this.frames)
    this.heard = roomFor(before.length + stereo.length, this.heard)
    this.heard.set(before)
    this.heard.set(stereo, before.length)
    this.frames += stereo.length / 2
    const count = Math.max(0, Math.ceil(((this.frames - taps + 1) * up - this.next) / down))
    this.out = roomFor(2 * count, this.out)
    const out = this.out.subarray(0, 2 * count)
    this.arithmetic.changeRate(this.heard, this.filter, this.next, out)
    const gone = Math.min(this.frames, Math.floor((this.next + count * down) / up))
    this.next += count * down - gone * up
    this.heard.copyWithin(0, 2 * gone, 2 * this.frames)
    this.frames -= gone
    return out
  }

  /** What follows when nothing more comes. */
  end(): Float32Array {
    return this.push(new Float32Array(this.filter.taps))
  }
}

/** `had` if it is large enough, else another. */
const roomFor = (samples: number, had: Float32Array<ArrayBuffer>) =>
  had.length >= samples ? had : new Float32Array(samples)

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

const sinc = (x: number) => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x))

/**
 * Places from the middle of the window to its end at which it is worked out; between them it is as good as straight.
 */
const WINDOW_STEPS = 8192
let window: Float64Array | null = null

/** The Kaiser window at `x` of −1 to 1; 0 outside. */
function kaiser(x: number): number {
  window ??= Float64Array.from(
    { length: WINDOW_STEPS + 1 },
    (_, i) => bessel(BETA * Math.sqrt(1 - (i / WINDOW_STEPS) ** 2)) / bessel(BETA),
  )
  const at = Math.abs(x) * WINDOW_STEPS
  if (at >= WINDOW_STEPS) return 0
  const before = window[Math.floor(at)] as number
  return before + (at % 1) * ((window[Math.floor(at) + 1] as number) - before)
}

/** The modified Bessel function of the first kind, order 0. */
function bessel(x: number): number {
  let [sum, term] = [1, 1]
  for (let k = 1; term > sum * 1e-12; k++) {
    term *= (x / (2 * k)) ** 2
    sum += term
  }
  return sum
}
