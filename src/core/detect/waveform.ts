import { PART_MICROS, WAVE_STEP_MICROS, type SoundPart } from './analysis'
import type { Micros } from '../time/micros'

/** Each level of a pyramid has this many steps of the one below in one of its own. */
const FACTOR = 4

/** Peaks and levels of one part at ever coarser steps; level 0 is the part's own. */
interface Pyramid {
  peaks: Uint8Array[]
  rms: Uint8Array[]
}

/** A waveform that can be drawn at any scale at once, however long the recording. Parts are added as they are heard. */
export class Waveform {
  private readonly parts = new Map<number, Pyramid>()

  add(index: number, { peaks, rms }: Pick<SoundPart, 'peaks' | 'rms'>): void {
    if (!this.parts.has(index)) this.parts.set(index, { peaks: levelsOf(peaks, largest), rms: levelsOf(rms, mean) })
  }

  has(index: number): boolean {
    return this.parts.has(index)
  }

  /**
   * Loudest peak and mean level, 0..255, of each of `peaks.length` columns of `columnMicros` from `fromMicros` on,
   * into the arrays given; 0 where nothing has been heard yet.
   */
  columns(fromMicros: Micros, columnMicros: number, peaks: Uint8Array, rms: Uint8Array): void {
    const level = Math.max(0, Math.floor(Math.log(columnMicros / WAVE_STEP_MICROS) / Math.log(FACTOR)))
    for (let i = 0; i < peaks.length; i++) {
      const from = fromMicros + i * columnMicros
      const [peak, sum, count] = this.over(from, from + columnMicros, level)
      peaks[i] = peak
      rms[i] = count > 0 ? Math.round(sum / count) : 0
    }
  }

  private over(from: number, to: number, wanted: number): [peak: number, sum: number, count: number] {
    let [peak, sum, count] = [0, 0, 0]
    for (let index = Math.max(0, Math.floor(from / PART_MICROS)); index * PART_MICROS < to; index++) {
      const part = this.parts.get(index)
      if (!part) continue
      const level = Math.min(wanted, part.peaks.length - 1)
      const step = WAVE_STEP_MICROS * FACTOR ** level
      const [peaks, rms] = [part.peaks[level] ?? new Uint8Array(), part.rms[level] ?? new Uint8Array()]
      const first = Math.max(0, Math.floor((from - index * PART_MICROS) / step))
      const last = Math.min(peaks.length, Math.max(first + 1, Math.floor((to - index * PART_MICROS) / step)))
      for (let i = first; i < last; i++) {
        peak = Math.max(peak, peaks[i] ?? 0)
        sum += rms[i] ?? 0
        count++
      }
    }
    return [peak, sum, count]
  }
}

/**
 * A row and ever coarser ones of it. Thousands of steps a part and hundreds of parts at once when a recording is
 * opened again: plain loops.
 */
function levelsOf(row: Uint8Array, join: (row: Uint8Array, from: number, to: number) => number): Uint8Array[] {
  const levels = [row]
  for (let below = row; below.length > 1;) {
    const source = below
    below = new Uint8Array(Math.ceil(source.length / FACTOR))
    for (let i = 0; i < below.length; i++)
      below[i] = join(source, i * FACTOR, Math.min(source.length, (i + 1) * FACTOR))
    levels.push(below)
  }
  return levels
}

function largest(row: Uint8Array, from: number, to: number): number {
  let most = 0
  for (let i = from; i < to; i++) most = Math.max(most, row[i] as number)
  return most
}

function mean(row: Uint8Array, from: number, to: number): number {
  let sum = 0
  for (let i = from; i < to; i++) sum += row[i] as number
  return Math.round(sum / Math.max(1, to - from))
}
