/** A date, year first, and maybe a time of day after it, with whatever stands between their numbers. */
const DATE = String.raw`(?<!\d)(20\d\d)[-_. ]?(0[1-9]|1[0-2])[-_. ]?(0[1-9]|[12]\d|3[01])`
const TIME = String.raw`(?:[-_.T ]+(?:at )?([01]\d|2[0-3])[-_.:h ]?([0-5]\d)(?:[-_.:m ]?([0-5]\d))?)?(?!\d)`
const DATE_AND_TIME = new RegExp(DATE + TIME)

/** A recording whose name has no time of day was made at noon, as far as anybody knows. */
const NOON = 12

/**
 * When a recording was made by its file's name, as recorders and phones write it: `2026-11-24 18-30-05`,
 * `20261124_183005`, `heat 3, 2026.11.24`; in the time zone of this machine. Null where the name has no date, or one
 * that the calendar does not have or that is yet to come.
 */
export function dateInName(fileName: string, now: Date): Date | null {
  const match = DATE_AND_TIME.exec(fileName)
  if (!match) return null
  const [year = 0, month = 0, day = 0] = match.slice(1, 4).map(Number)
  const [hours, minutes, seconds] = match.slice(4, 7).map((text) => (text === undefined ? undefined : Number(text)))
  const date = new Date(year, month - 1, day, hours ?? NOON, minutes ?? 0, seconds ?? 0)
  return date.getDate() === day && date <= now ? date : null
}
