/**
 * How samples come out of samples along one side of a picture: where each output begins, and by how much its
 * neighbours count. *bilinear* looks at two, *bicubic* at four (B = 0, C = 0.6: sharp, hardly any rings), *area* at
 * all that an output covers, each by how much of it, *gauss* at a bell about it.
 */
export interface FilterTable {
  /** Samples for each output; even, and a multiple of four above two. */
  taps: number
  /** The first sample of each output, `0 … samples − 1`; never falling unless the picture is mirrored. */
  index: Uint32Array
  /** 2.14 fixed point, `[output][tap]`; those of each output add up to 1. */
  coefs: Int16Array
}

export type FilterKind = 'bilinear' | 'bicubic' | 'area' | 'gauss'

export interface FilterWish {
  kind: FilterKind
  /** How many outputs there are. */
  outputs: number
  /** Where output `n` looks, in samples: 0 is the middle of the first. Even steps, forwards or backwards. */
  at: (n: number) => number
  /**
   * How many samples an output stands for: the scale that the picture is reduced by. 1 and less when it is enlarged.
   */
  reach: number
  /** How many samples there are. Those at the ends stand for what lies beyond. */
  samples: number
  /** Standard deviation of *gauss*, in samples. */
  deviation?: number
}

const ONE = 1 << 14

/** Beyond so many deviations a bell counts for nothing. */
const BELL_REACH = 3

/** Samples that kinds of filters look at which never reach farther. */
const SPANS: Partial<Record<FilterKind, number>> = { bilinear: 2, bicubic: 4 }

/** Builds the table of a filter. */
export function filterTable({ kind, outputs, at, reach, samples, deviation = 1 }: FilterWish): FilterTable {
  const weigh = weightOf(kind, reach, deviation)
  const half = halfWidth(kind, reach, deviation)
  const span = SPANS[kind] ?? Math.ceil(2 * half) + 1
  const taps = span <= 2 ? 2 : 4 * Math.ceil(span / 4)
  const index = new Uint32Array(outputs)
  const coefs = new Int16Array(outputs * taps)
  const weights = new Float64Array(taps)
  for (let n = 0; n < outputs; n++) {
    const middle = at(n)
    const first =
      kind === 'bilinear' || kind === 'bicubic' ? Math.floor(middle) - (span / 2 - 1) : Math.ceil(middle - half)
    const begin = Math.max(0, Math.min(samples - taps, first))
    weights.fill(0)
    for (let i = first; i < first + span; i++) {
      const place = Math.max(0, Math.min(samples - 1, i)) - begin
      weights[place] = (weights[place] ?? 0) + weigh(i - middle)
    }
    index[n] = begin
    toFixed(weights, coefs.subarray(n * taps, (n + 1) * taps))
  }
  return { taps, index, coefs }
}

function halfWidth(kind: FilterKind, reach: number, deviation: number): number {
  if (kind === 'area') return (Math.max(1, reach) + 1) / 2
  if (kind === 'gauss') return BELL_REACH * deviation
  return kind === 'bilinear' ? 1 : 2
}

function weightOf(kind: FilterKind, reach: number, deviation: number): (distance: number) => number {
  switch (kind) {
    case 'bilinear':
      return (d) => Math.max(0, 1 - Math.abs(d))
    case 'bicubic':
      return (d) => cubic(Math.abs(d))
    case 'area': {
      // How much of a sample's unit lies under the output's span.
      const half = Math.max(1, reach) / 2
      return (d) => Math.max(0, Math.min(d + 0.5, half) - Math.max(d - 0.5, -half))
    }
    case 'gauss':
      return (d) => (Math.abs(d) > BELL_REACH * deviation ? 0 : Math.exp(-(d * d) / (2 * deviation * deviation)))
  }
}

/** Mitchell and Netravali's cubic with B = 0, C = 0.6. */
function cubic(d: number): number {
  if (d < 1) return (1.4 * d - 2.4) * d * d + 1
  return d < 2 ? ((-0.6 * d + 3) * d - 4.8) * d + 2.4 : 0
}

/**
 * Weights as shares of their sum in fixed point; what rounding leaves over is carried on, so that they add up to one
 * and errors even out.
 */
function toFixed(weights: Float64Array, out: Int16Array): void {
  const sum = weights.reduce((a, b) => a + b, 0)
  let before = 0
  let soFar = 0
  weights.forEach((w, i) => {
    soFar += w
    const upTo = Math.round((soFar / sum) * ONE)
    out[i] = upTo - before
    before = upTo
  })
}
