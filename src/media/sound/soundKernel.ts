import { MAX_OVER, PEAK_PHASES, PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from '@/core/sound/arithmetic'
import type { RateFilter } from '@/core/sound/rateChange'
import { quietly } from '@/diagnostics/note'

/** What kernel/sound.ts compiles to. Every number is a byte offset or a count; see there. */
interface SoundExports {
  memory: WebAssembly.Memory
  oversample: (src: number, count: number, dst: number, phases: number, quiet: number) => number
  goOn: (heard: number, starts: number, tail: number, count: number, fade: number, dst: number, room: number) => number
  weigh: (src: number, count: number, filter: number, state: number) => number
  changeRate: (
    src: number,
    next: number,
    up: number,
    down: number,
    filter: number,
    taps: number,
    dst: number,
    count: number,
  ) => void
}

/** Samples handed over at a time. */
const MAX_SAMPLES = 16_384
const BYTES = Float32Array.BYTES_PER_ELEMENT

/** Where things lie in the kernel's memory; vectors are read whole, so there is room behind each. */
const PHASES = 65_536
const FILTER = PHASES + 1024
const STATE = FILTER + 128
const FIRST = PHASES + 4096
const SECOND = FIRST + (MAX_SAMPLES + 64) * BYTES
const THIRD = SECOND + (MAX_SAMPLES + 64) * BYTES
const FOURTH = THIRD + (MAX_SAMPLES + 64) * BYTES
/** For sums and means of what is looked through. */
const ROOM = FOURTH + (MAX_SAMPLES + 64) * BYTES
/**
 * For the filter of one change of rate; that of 44 100 to 48 000 takes 15 360, one between rates that have nothing in
 * common some millions.
 */
const RATES = ROOM + 4 * (MAX_SAMPLES + 64) * BYTES
const MAX_COEFS = 262_144
const END = RATES + MAX_COEFS * BYTES

/** The kernel's arithmetic. Rejects where WebAssembly has no SIMD. */
export async function startSoundKernel(bytes: BufferSource): Promise<SoundArithmetic> {
  const { instance } = await WebAssembly.instantiate(bytes, {
    env: {
      abort: () => {
        throw new Error('the kernel gave up')
      },
    },
  })
  const { memory, oversample, goOn, weigh, changeRate } = instance.exports as unknown as SoundExports
  memory.grow(Math.max(0, Math.ceil((END - memory.buffer.byteLength) / 65_536)))
  new Float32Array(memory.buffer, PHASES, 4 * PEAK_TAPS).set(PEAK_PHASES.flatMap((phase) => [...phase]))
  const [first, second, third, fourth] = [FIRST, SECOND, THIRD, FOURTH].map(
    (at) => new Float32Array(memory.buffer, at, MAX_SAMPLES + 64),
  ) as [Float32Array, Float32Array, Float32Array, Float32Array]
  const [filters, states] = [new Float64Array(memory.buffer, FILTER, 10), new Float64Array(memory.buffer, STATE, 8)]
  const coefs = new Float32Array(memory.buffer, RATES, MAX_COEFS)
  let laid: RateFilter | null = null
  return {
    oversample(stereo, peaks, above) {
      // Frames at a time, with those before the first; the kernel takes them in fours.
      const atOnce = MAX_SAMPLES / 2 - 16
      let highest = 0
      for (let from = 0; from < peaks.length; from += atOnce) {
        const count = Math.min(atOnce, peaks.length - from)
        const end = 2 * (from + count + PEAK_TAPS - 1)
        first.set(stereo.subarray(2 * from, end))
        first.fill(0, end - 2 * from, end - 2 * from + 16)
        const most = oversample(FIRST, Math.ceil(count / 4) * 4, SECOND, PHASES, above / MAX_OVER)
        const part = second.subarray(0, count)
        peaks.set(part, from)
        // What the last four tell beyond the end is no peak.
        highest = Math.max(highest, count % 4 === 0 ? most : part.reduce((a, b) => Math.max(a, b), 0))
      }
      return highest
    },
    weigh(stereo, from, to, filter, state) {
      filters.set(filter)
      states.set(state)
      let sum = 0
      for (let at = from; at < to; at += MAX_SAMPLES / 2) {
        const end = Math.min(to, at + MAX_SAMPLES / 2)
        first.set(stereo.subarray(2 * at, 2 * end))
        sum += weigh(FIRST, end - at, FILTER, STATE)
      }
      state.set(states)
      return sum
    },
    goOn(heard, tail, fade, crossed) {
      if (heard.length > MAX_SAMPLES) return PLAIN_ARITHMETIC.goOn(heard, tail, fade, crossed)
      first.set(heard)
      second.set(tail)
      third.set(fade)
      const at = goOn(FIRST, heard.length / 2 - tail.length + 1, SECOND, tail.length / 2, THIRD, FOURTH, ROOM)
      crossed.set(fourth.subarray(0, crossed.length))
      return at
    },
    changeRate(heard, filter, next, out) {
      const { up, down, taps } = filter
      // Frames that can be told from what fits; a filter that is longer than that, or has more phases than there is
      // room for, is a rare one.
      const atOnce = Math.min(MAX_SAMPLES / 2, Math.floor(((MAX_SAMPLES / 2 - taps) * up) / down))
      if (filter.coefs.length > MAX_COEFS || atOnce < 1) return PLAIN_ARITHMETIC.changeRate(heard, filter, next, out)
      if (laid !== filter) coefs.set(filter.coefs)
      laid = filter
      for (let from = 0; from < out.length / 2; from += atOnce) {
        const count = Math.min(atOnce, out.length / 2 - from)
        const at = next + from * down
        const frame = Math.floor(at / up)
        first.set(heard.subarray(2 * frame, 2 * (frame + Math.floor(((at % up) + (count - 1) * down) / up) + taps)))
        changeRate(FIRST, at % up, up, down, RATES, taps, SECOND, count)
        out.set(second.subarray(0, 2 * count), 2 * from)
      }
    },
  }
}

let shipped: Promise<SoundArithmetic> | null = null

/**
 * The arithmetic of the kernel that ships with the application, else the plain one. One for each worker, whoever
 * asks.
 */
export function soundArithmetic(): Promise<SoundArithmetic> {
  shipped ??= fetch('/kernel/sound.wasm')
    .then((answer) => (answer.ok ? answer.arrayBuffer() : Promise.reject(new Error(`${answer.status}`))))
    .then(startSoundKernel)
    .catch((error: unknown) => quietly('the kernel for sound')(error) ?? PLAIN_ARITHMETIC)
  return shipped
}
