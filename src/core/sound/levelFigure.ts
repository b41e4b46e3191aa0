import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { toDecibels } from './levels'

/** Levels are taken so many times a second. */
export const LEVELS_PER_SECOND = 30

/** A figure shows this many of them, the newest last: four fifths of a second. */
export const FIGURE_LEVELS = 24

/** What is not drawn higher than nothing, and what is drawn as high as can be, dBFS. */
const QUIETEST = -48
const LOUDEST = -6

/**
 * Heights 0..1 of a level figure at output time `t`, oldest first. `levels`: mean level, linear, of each thirtieth of
 * a second of the output; before its start and after its end it is silent.
 */
export function figureAt(levels: ArrayLike<number>, t: Micros): number[] {
  const now = Math.floor((t * LEVELS_PER_SECOND) / MICROS_PER_SECOND)
  return Array.from({ length: FIGURE_LEVELS }, (_, i) => heightOf(levels[now - FIGURE_LEVELS + 1 + i] ?? 0))
}

function heightOf(level: number): number {
  return Math.min(1, Math.max(0, (toDecibels(level) - QUIETEST) / (LOUDEST - QUIETEST)))
}
