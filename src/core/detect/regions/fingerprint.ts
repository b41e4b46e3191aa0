import { z } from 'zod'
import type { StillLines } from './lines'
import { MAX_PLACES, placesAlike, scenePlace, type ScenePlace } from './places'
import type { Stillness } from './stillness'

/** The grid on which what holds still is remembered, whatever the recording's size. */
const COLUMNS = 48
const ROWS = 27
const CELLS = COLUMNS * ROWS

const amount = z.number().int().min(0).max(255)
const cells = z.array(amount).length(CELLS)

/**
 * What holds still in a recording's picture, by which its setup is recognised. `[row][column]` of a 48 × 27 grid
 * each.
 */
export const fingerprint = z.object({
  /** How much of the cell's height an upright line that holds still runs along, in 255ths. */
  upright: cells,
  /** How much of its width a level one runs along. */
  level: cells,
  /** Share of the cell's pixels that hold still. */
  still: cells,
  /** Mean 8-bit luma of those; 0 where there are none. */
  luma: cells,
  /** Where its own things were found; absent: nobody looked for them. */
  places: z.array(scenePlace).max(MAX_PLACES).optional(),
})
export type Fingerprint = z.infer<typeof fingerprint>

/** A pixel that never gets more than this brighter than at its darkest. */
const STILL = 16

/** `places`: null where nobody looked for any. */
export function fingerprintOf(
  stillness: Stillness,
  upright: StillLines,
  level: StillLines,
  places: ScenePlace[] | null,
): Fingerprint {
  const { width, height, range, mean } = stillness
  const fingerprint: Fingerprint = { upright: [], level: [], still: [], luma: [], ...(places && { places }) }
  for (let row = 0; row < ROWS; row++)
    for (let column = 0; column < COLUMNS; column++) {
      const [x0, x1] = [Math.floor((column * width) / COLUMNS), Math.floor(((column + 1) * width) / COLUMNS)]
      const [y0, y1] = [Math.floor((row * height) / ROWS), Math.floor(((row + 1) * height) / ROWS)]
      fingerprint.upright.push(Math.round(255 * longest(upright, x0, x1, y0, y1)))
      fingerprint.level.push(Math.round(255 * longest(level, y0, y1, x0, x1)))
      let count = 0
      let sum = 0
      for (let y = y0; y < y1; y++)
        for (let x = x0; x < x1; x++) {
          if ((range[y * width + x] as number) > STILL) continue
          count++
          sum += mean[y * width + x] as number
        }
      fingerprint.still.push(Math.round((255 * count) / ((x1 - x0) * (y1 - y0))))
      fingerprint.luma.push(count > 0 ? Math.round(sum / count) : 0)
    }
  return fingerprint
}

function longest(lines: StillLines, from: number, to: number, alongFrom: number, alongTo: number): number {
  let best = 0
  for (let line = from; line < to; line++) best = Math.max(best, lines.share(line, alongFrom, alongTo))
  return best
}

/** Lines that lie at the edge of a cell may be counted in the next one, in another size of the same picture. */
const SPREAD = 0.6

/** A cell counts as holding still from this share of its pixels on. */
const MIN_STILL = 0.6 * 255

/** Cells of the same brightness: coders and capture cards shift it a little. */
const SAME_LUMA = 14

/** How much of a scene is where its things are; the rest is what holds still. */
const BY_PLACES = 0.75
/** What holds still, alone, says less: two games have a horizon in one place, two slides a plain ground. */
const BY_STILLNESS_ALONE = 0.65

/** How alike two scenes are, 0..1: in where their things are, and in what holds still. */
export function likeness(a: Fingerprint, b: Fingerprint): number {
  const places = a.places && b.places ? placesAlike(a.places, b.places) : null
  const still = stillnessAlike(a, b)
  if (places === null) return BY_STILLNESS_ALONE * still
  // Programs for calls give the same places to whoever comes.
  if ([a, b].every((f) => f.places?.every((p) => p.kind === 'tile' || p.kind === 'head'))) return places * still
  return BY_PLACES * places + (1 - BY_PLACES) * still
}

/** How alike what holds still is, 0..1: where lines run, and how bright the places are that never change in either. */
function stillnessAlike(a: Fingerprint, b: Fingerprint): number {
  const lines = (linesAlike(a.upright, b.upright) + linesAlike(a.level, b.level)) / 2
  let both = 0
  let either = 0
  let same = 0
  for (let i = 0; i < CELLS; i++) {
    const [inA, inB] = [(a.still[i] as number) >= MIN_STILL, (b.still[i] as number) >= MIN_STILL]
    if (inA || inB) either++
    if (!inA || !inB) continue
    both++
    if (Math.abs((a.luma[i] as number) - (b.luma[i] as number)) <= SAME_LUMA) same++
  }
  if (either < CELLS * 0.01) return Math.max(0, lines)
  // What one holds still and the other does not says little: other content may rest there by chance.
  const luma = both === 0 ? 0 : same / both
  return Math.max(0, 0.65 * lines + 0.35 * luma * Math.min(1, (2 * both) / either))
}

/**
 * Correlation of two maps of lines, each spread a little over its neighbours: 1 for the same, about 0 for unrelated
 * ones.
 */
function linesAlike(a: readonly number[], b: readonly number[]): number {
  const [x, y] = [spread(a), spread(b)]
  const [meanX, meanY] = [mean(x), mean(y)]
  let [xy, xx, yy] = [0, 0, 0]
  for (let i = 0; i < CELLS; i++) {
    const [dx, dy] = [(x[i] as number) - meanX, (y[i] as number) - meanY]
    xy += dx * dy
    xx += dx * dx
    yy += dy * dy
  }
  return xx === 0 || yy === 0 ? 0 : xy / Math.sqrt(xx * yy)
}

const mean = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0) / values.length

function spread(map: readonly number[]): Float32Array {
  const at = (row: number, column: number) =>
    row < 0 || row >= ROWS || column < 0 || column >= COLUMNS ? 0 : (map[row * COLUMNS + column] as number)
  return Float32Array.from({ length: CELLS }, (_, i) => {
    const [row, column] = [Math.floor(i / COLUMNS), i % COLUMNS]
    const beside = Math.max(at(row - 1, column), at(row + 1, column), at(row, column - 1), at(row, column + 1))
    return Math.max(at(row, column), SPREAD * beside)
  })
}

/** From here on a match is sure enough to be applied, and from here on worth offering. */
export const SURE = 0.63
export const WORTH_OFFERING = 0.4

/** A sure match is this much more alike than the next best. */
const LEAD = 0.08

export type Recognition<T> = { kind: 'sure' | 'unsure'; match: T; likeness: number } | { kind: 'none' }

/** The one of several fingerprinted things that a recording looks like: sure, worth asking about, or none. */
export function recognise<T extends { fingerprint: Fingerprint | null }>(
  seen: Fingerprint,
  known: readonly T[],
): Recognition<T> {
  const ranked = known
    .flatMap((match) => (match.fingerprint ? [{ match, likeness: likeness(seen, match.fingerprint) }] : []))
    .sort((a, b) => b.likeness - a.likeness)
  const [best, next] = ranked
  if (!best || best.likeness < WORTH_OFFERING) return { kind: 'none' }
  return { kind: best.likeness >= SURE && best.likeness - (next?.likeness ?? 0) >= LEAD ? 'sure' : 'unsure', ...best }
}
