import { filterTable, type FilterKind, type FilterTable } from '@/core/picture/filterTable'
import type { PlaneHeap } from './planeHeap'
import type { Plane } from './planes'

/**
 * How outputs along one side come from samples. `at`: where output `n` looks, in samples of the source, 0 the middle
 * of the first; in even steps.
 */
export interface Axis {
  kind: FilterKind
  outputs: number
  /** Where output 0 looks, and how far apart they look; negative for a mirrored side. */
  from: number
  step: number
  /** The first sample that may be looked at, and how many. */
  first: number
  samples: number
  deviation?: number
}

/**
 * Tables are kept for so many different crops: those of a picture that stays are built once, those of one that moves
 * are not worth keeping.
 */
const MAX_TABLES = 128

interface Table {
  index: number
  coefs: number
  taps: number
  outputs: number
}

/** Scales planes, with tables that are built once for each crop. */
export class Resampler {
  private readonly tables = new Map<string, Table>()

  constructor(private readonly heap: PlaneHeap) {}

  /**
   * Fills `dst` from `src`. `dst` is as large as the axes say; the vertical one must not be mirrored where
   * `isUpsideDown` can say it instead.
   */
  run(src: Plane, dst: Plane, across: Axis, down: Axis): void {
    const { heap } = this
    const upsideDown = down.step < 0
    const x = this.table('across', across)
    // A mirrored side looks at rows in falling order; the kernel wants them rising, so that it is told the rows from
    // the last to the first.
    const y = this.table(
      'down',
      upsideDown ? { ...down, from: down.samples - 1 - (down.from - down.first) + down.first, step: -down.step } : down,
    )
    const rowSamples = roundUp(x.outputs, 8)
    const ringRows = y.taps + 1
    const ring = heap.take(rowSamples * 2 * ringRows)
    const rows = heap.take(4 * y.taps)
    const begin = src.at + across.first + (down.first + (upsideDown ? down.samples - 1 : 0)) * src.stride
    heap.kernel.resample(
      begin,
      upsideDown ? -src.stride : src.stride,
      down.samples,
      dst.at,
      dst.stride,
      across.outputs,
      down.outputs,
      rowSamples,
      x.index,
      x.coefs,
      x.taps,
      y.index,
      y.coefs,
      y.taps,
      ring,
      ringRows,
      rows,
    )
    heap.give(ring)
    heap.give(rows)
  }

  private table(way: 'across' | 'down', axis: Axis): Table {
    const key = `${way} ${axis.kind} ${axis.outputs} ${axis.from - axis.first} ${axis.step} ${axis.samples} ${axis.deviation ?? ''}`
    const cached = this.tables.get(key)
    if (cached) return cached
    if (this.tables.size >= MAX_TABLES) this.forget()
    const built = filterTable({
      kind: axis.kind,
      outputs: axis.outputs,
      at: (n) => axis.from - axis.first + n * axis.step,
      reach: Math.abs(axis.step),
      samples: axis.samples,
      deviation: axis.deviation,
    })
    const padded = way === 'across' ? forRows(built) : built
    const table = {
      index: this.heap.put(padded.index),
      coefs: this.heap.put(padded.coefs),
      taps: built.taps,
      outputs: axis.outputs,
    }
    this.tables.set(key, table)
    return table
  }

  private forget(): void {
    for (const { index, coefs } of this.tables.values()) {
      this.heap.give(index)
      this.heap.give(coefs)
    }
    this.tables.clear()
  }
}

const roundUp = (n: number, to: number) => Math.ceil(n / to) * to

/**
 * A table as the kernel reads it for rows: outputs in eights, the last again for what is missing; above two taps in
 * squares of four by four.
 */
function forRows({ taps, index, coefs }: FilterTable): { index: Uint32Array; coefs: Int16Array } {
  const outputs = roundUp(index.length, 8)
  const padded = new Uint32Array(outputs).fill(index.at(-1) ?? 0)
  padded.set(index)
  const arranged = new Int16Array(outputs * taps)
  for (let n = 0; n < outputs; n++)
    for (let t = 0; t < taps; t++) {
      const value = coefs[Math.min(n, index.length - 1) * taps + t] ?? 0
      const to = taps === 2 ? n * 2 + t : (n >> 2) * 4 * taps + (t >> 2) * 16 + (n & 3) * 4 + (t & 3)
      arranged[to] = value
    }
  return { index: padded, coefs: arranged }
}
