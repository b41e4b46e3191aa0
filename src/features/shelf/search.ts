import type { ShelfDay, ShelfRow } from './useShelf'

/** Text as it is compared: in small letters, without accents. */
const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/** What of a row can be searched, folded; rows are read anew whenever something of theirs changes. */
const searchable = new WeakMap<ShelfRow, string>()

function textOf(row: ShelfRow): string {
  const known = searchable.get(row)
  if (known !== undefined) return known
  const { recording, highlights, setupName } = row
  const made = folded(
    [
      recording.name,
      recording.fileName,
      setupName ?? '',
      ...highlights.flatMap(({ highlight: { name, words } }) => [
        name,
        ...words.titles.map((title) => title.text),
        ...words.cues.map((cue) => cue.text),
      ]),
    ].join('\n'),
  )
  searchable.set(row, made)
  return made
}

/**
 * The days with those of their recordings that have every word of a text: in their own names, in those of their
 * highlights and setup, or in what is said in a highlight. All of them where there is no text.
 */
export function searchShelf(days: readonly ShelfDay[], text: string): readonly ShelfDay[] {
  const words = folded(text).split(/\s+/).filter(Boolean)
  if (words.length === 0) return days
  return days.flatMap((day) => {
    const rows = day.rows.filter((row) => words.every((word) => textOf(row).includes(word)))
    return rows.length > 0 ? [{ ...day, rows }] : []
  })
}
