/** The filter reaches this many periods of the new rate to either side. */
const REACH = 4

/** Part of the new rate's band that is passed; the rest is where the filter falls off. */
const PASS = 0.9

/**
 * Brings sound down to a lower sample rate with a windowed-sinc filter, one phase for each place that an output
 * sample can have between two input ones. Output sample n lies at input sample n · from / to. Quicker by far than a
 * general converter, and good enough for a machine to listen to. Throws RangeError unless 0 < `to` ≤ `from`.
 */
export function decimate(input: Float32Array, from: number, to: number): Float32Array {
  if (!(to > 0 && to <= from)) throw new RangeError(`to: ${to} is not between 0 and ${from}`)
  const out = new Float32Array(Math.floor((input.length * to) / from))
  const divisor = greatestCommonDivisor(from, to)
  const phases = to / divisor
  const step = from / divisor
  const half = Math.ceil((REACH * from) / to)
  const kernels = Array.from({ length: phases }, (_, p) => kernel(half, p / phases, to / from))
  for (let n = 0; n < out.length; n++) {
    const whole = Math.floor((n * step) / phases)
    const taps = kernels[(n * step) % phases] as Float32Array
    const first = whole - half + 1
    let sum = 0
    if (first >= 0 && first + taps.length <= input.length)
      for (let k = 0; k < taps.length; k++) sum += (taps[k] as number) * (input[first + k] as number)
    else for (let k = 0; k < taps.length; k++) sum += (taps[k] as number) * (input[first + k] ?? 0)
    out[n] = sum
  }
  return out
}

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b)
}

/** 2 · half taps around an output sample that lies `phase` (0..1) after an input one; they sum to 1. */
function kernel(half: number, phase: number, ratio: number): Float32Array {
  const taps = Float32Array.from({ length: 2 * half }, (_, k) => {
    const x = k - half + 1 - phase
    const angle = Math.PI * x * ratio * PASS
    const window = 0.5 + 0.5 * Math.cos((Math.PI * x) / half)
    return (Math.abs(angle) < 1e-9 ? 1 : Math.sin(angle) / angle) * window
  })
  const sum = taps.reduce((a, b) => a + b, 0)
  return taps.map((t) => t / sum)
}
