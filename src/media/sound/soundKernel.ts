import { PEAK_PHASES, PEAK_TAPS, PLAIN_ARITHMETIC, type SoundArithmetic } from '@/core/sound/arithmetic'

/** What kernel/sound.ts compiles to. Every number is a byte offset or a count; see there. */
interface SoundExports {
  memory: WebAssembly.Memory
  oversample: (src: number, count: number, dst: number, phases: number) => void
  means: (src: number, step: number, dst: number, count: number) => void
  bestOf: (heard: number, starts: number, like: number, count: number) => number
  weigh: (src: number, count: number, filter: number, state: number) => number
}

/** Samples handed over at a time. */
const MOST_SAMPLES = 16_384
const BYTES = Float32Array.BYTES_PER_ELEMENT

/** Where things lie in the kernel's memory; vectors are read whole, so there is room behind each. */
const PHASES = 65_536
const FILTER = PHASES + 1024
const STATE = FILTER + 128
const FIRST = PHASES + 4096
const SECOND = FIRST + (MOST_SAMPLES + 64) * BYTES
const END = SECOND + (MOST_SAMPLES + 64) * BYTES

/** The kernel's arithmetic. Rejects where WebAssembly has no SIMD. */
export async function startSoundKernel(bytes: BufferSource): Promise<SoundArithmetic> {
  const { instance } = await WebAssembly.instantiate(bytes, { env: { abort: () => { throw new Error('the kernel gave up') } } })
  const { memory, oversample, means, bestOf, weigh } = instance.exports as unknown as SoundExports
  memory.grow(Math.max(0, Math.ceil((END - memory.buffer.byteLength) / 65_536)))
  new Float32Array(memory.buffer, PHASES, 4 * PEAK_TAPS).set(PEAK_PHASES.flatMap((phase) => [...phase]))
  const [first, second] = [FIRST, SECOND].map((at) => new Float32Array(memory.buffer, at, MOST_SAMPLES + 64)) as [Float32Array, Float32Array]
  const [filters, states] = [new Float64Array(memory.buffer, FILTER, 10), new Float64Array(memory.buffer, STATE, 4)]
  return {
    oversample(all, peaks) {
      for (let from = 0; from < peaks.length; from += MOST_SAMPLES) {
        const count = Math.min(MOST_SAMPLES, peaks.length - from)
        first.set(all.subarray(from, from + count + PEAK_TAPS - 1))
        oversample(FIRST, Math.ceil(count / 4) * 4, SECOND, PHASES)
        peaks.set(second.subarray(0, count), from)
      }
    },
    means(samples, step, into) {
      if (samples.length > MOST_SAMPLES) return PLAIN_ARITHMETIC.means(samples, step, into)
      first.set(samples)
      means(FIRST, step, SECOND, into.length)
      into.set(second.subarray(0, into.length))
    },
    bestOf(heard, starts, like) {
      if (heard.length > MOST_SAMPLES) return PLAIN_ARITHMETIC.bestOf(heard, starts, like)
      first.set(heard)
      first.fill(0, heard.length, heard.length + 16)
      second.set(like)
      return bestOf(FIRST, starts, SECOND, like.length)
    },
    weigh(samples, from, to, filter, state) {
      filters.set(filter)
      states.set(state)
      let sum = 0
      for (let at = from; at < to; at += MOST_SAMPLES) {
        const part = samples.subarray(at, Math.min(to, at + MOST_SAMPLES))
        first.set(part)
        sum += weigh(FIRST, part.length, FILTER, STATE)
      }
      state.set(states)
      return sum
    },
  }
}

let shipped: Promise<SoundArithmetic> | null = null

/** The arithmetic of the kernel that ships with the application, else the plain one. One for each worker, whoever asks. */
export function soundArithmetic(): Promise<SoundArithmetic> {
  shipped ??= fetch('/kernel/sound.wasm')
    .then((answer) => (answer.ok ? answer.arrayBuffer() : Promise.reject(new Error(`${answer.status}`))))
    .then(startSoundKernel)
    .catch(() => PLAIN_ARITHMETIC)
  return shipped
}
