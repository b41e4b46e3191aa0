import { dayKey } from '@/ui/format'
import type { ShelfDay } from './useShelf'

export type SpanKind = 'day' | 'month'

/** A day or month with how many recordings were made in it, and how many highlights those have yielded. */
export interface ShelfSpan {
  key: string
  name: string
  recordings: number
  highlights: number
}

/** Quiet days between others are shown too, so that time runs evenly, but no more than this. */
const MAX_SPANS = 60

/** The day (`2026-11-24`) or month (`2026-11`) that an ISO time falls in here. */
export function spanKey(iso: string, kind: SpanKind): string {
  return kind === 'day' ? dayKey(iso) : dayKey(iso).slice(0, 7)
}

/**
 * Every day or month from the first recording to the last, oldest first; the newest {@link MAX_SPANS} when there are
 * more.
 */
export function spansOf(days: readonly ShelfDay[], kind: SpanKind): ShelfSpan[] {
  const times = days.map((d) => Date.parse(d.iso)).sort((a, b) => a - b)
  const [first, last] = [times[0], times.at(-1)]
  if (first === undefined || last === undefined) return []
  const spans = new Map<string, ShelfSpan>()
  for (let date = new Date(first); ; date = next(date, kind)) {
    const key = spanKey(date.toISOString(), kind)
    spans.set(key, { key, name: nameOf(date, kind), recordings: 0, highlights: 0 })
    if (key >= spanKey(new Date(last).toISOString(), kind)) break
  }
  for (const day of days) {
    const span = spans.get(spanKey(day.iso, kind))
    if (!span) continue
    span.recordings += day.rows.length
    span.highlights += day.rows.reduce((n, row) => n + row.highlights.length, 0)
  }
  return [...spans.values()].slice(-MAX_SPANS)
}

/** Noon of the next day or of the next month's first, which no change of clocks can make the same one again. */
function next(date: Date, kind: SpanKind): Date {
  return kind === 'day'
    ? new Date(date.getFullYear(), date.getMonth(), date.getDate() + 1, 12)
    : new Date(date.getFullYear(), date.getMonth() + 1, 1, 12)
}

function nameOf(date: Date, kind: SpanKind): string {
  return date.toLocaleDateString(
    'en-GB',
    kind === 'day' ? { day: 'numeric', month: 'short' } : { month: 'short', year: 'numeric' },
  )
}
