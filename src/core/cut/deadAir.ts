import type { Passage, Strike } from '../model/passage'
import { keptStretches } from '../time/timeMap'
import { clampMicros, type Micros } from '../time/micros'

/** What counts as dead air, and what is left of it. */
export interface DeadAirSettings {
  /** A pause shorter than this is left alone. */
  leastMicros: Micros
  /** Sound at or below this level is quiet, dBFS. */
  levelDb: number
  /** Left of the pause at either end, so that speech does not run into speech. */
  breathMicros: Micros
}

export const DEAD_AIR_DEFAULTS: DeadAirSettings = { leastMicros: 700_000, levelDb: -42, breathMicros: 120_000 }

/** Sound louder than the limit for less than this does not end a pause: a click, a key press. */
const BLIP_MICROS = 60_000

/**
 * Pauses in a row of levels (dBFS, one for each `stepMicros` from `fromMicros` on): what would be struck out, breath
 * left on either side. A pause at the very start or end of the row keeps its breath only toward the sound.
 */
export function findDeadAir(
  levelsDb: ArrayLike<number>,
  fromMicros: Micros,
  stepMicros: Micros,
  settings: DeadAirSettings,
): Strike[] {
  const blip = Math.max(0, Math.floor(BLIP_MICROS / stepMicros))
  const end = fromMicros + levelsDb.length * stepMicros
  const at = (i: number) => clampMicros(Math.round(fromMicros + i * stepMicros), fromMicros, end)
  return quietStretches(levelsDb, settings.levelDb, blip).flatMap(([first, last]) => {
    if (at(last) - at(first) < settings.leastMicros) return []
    const from = first === 0 ? at(0) : at(first) + settings.breathMicros
    const to = last === levelsDb.length ? at(last) : at(last) - settings.breathMicros
    return to > from ? [{ fromMicros: from, toMicros: to }] : []
  })
}

/** What would be saved by less than this is not worth a proposal. */
const MIN_MICROS = 40_000

/**
 * The pauses in what a passage plays, from the levels of its recording from its in point on, as
 * {@link findDeadAir}; nothing that is struck out already.
 */
export function pausesIn(
  passage: Pick<Passage, 'inMicros' | 'outMicros' | 'strikes'>,
  levelsDb: ArrayLike<number>,
  stepMicros: Micros,
  settings: DeadAirSettings,
): Strike[] {
  return findDeadAir(levelsDb, passage.inMicros, stepMicros, settings)
    .flatMap(({ fromMicros, toMicros }) =>
      keptStretches({
        inMicros: fromMicros,
        outMicros: Math.min(toMicros, passage.outMicros),
        strikes: passage.strikes,
      }),
    )
    .filter((s) => s.outMicros - s.inMicros >= MIN_MICROS)
    .map((s) => ({ fromMicros: s.inMicros, toMicros: s.outMicros }))
}

/** Index ranges [first, last) at or below `limit`, with louder blips of up to `blip` steps inside them let pass. */
function quietStretches(levels: ArrayLike<number>, limit: number, blip: number): [number, number][] {
  const stretches: [number, number][] = []
  let start = -1
  let lastQuiet = -1
  for (let i = 0; i < levels.length; i++) {
    if ((levels[i] ?? 0) <= limit) {
      if (start >= 0 && i - lastQuiet - 1 > blip) {
        stretches.push([start, lastQuiet + 1])
        start = i
      }
      if (start < 0) start = i
      lastQuiet = i
    }
  }
  if (start >= 0) stretches.push([start, lastQuiet + 1])
  return stretches
}

export function totalOf(strikes: readonly Strike[]): Micros {
  return strikes.reduce((sum, s) => sum + s.toMicros - s.fromMicros, 0)
}
