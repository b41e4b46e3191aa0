import { createEvents, type EventAttributes } from 'ics'
import Papa from 'papaparse'
import type { Outlet } from '../model/outlet'
import type { Post } from '../model/post'

const nameOf = (outlets: readonly Pick<Outlet, 'id' | 'name'>[], post: Post) =>
  outlets.find((o) => o.id === post.outletId)?.name ?? 'Outlet'

/**
 * A plan as iCalendar (RFC 5545): an event of a quarter of an hour for each post, at its time in UTC. Throws Error on
 * what no calendar takes.
 */
export function planAsCalendar(posts: readonly Post[], outlets: readonly Pick<Outlet, 'id' | 'name'>[]): string {
  const events = posts.map((post): EventAttributes => {
    const at = new Date(post.dueAt)
    return {
      uid: `${post.id}@brimble`,
      start: [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes()],
      startInputType: 'utc',
      startOutputType: 'utc',
      duration: { minutes: 15 },
      title: `${nameOf(outlets, post)}: ${post.title}`,
      description: post.text,
      productId: '-//Brimble//The week//EN',
    }
  })
  if (events.length === 0)
    return 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Brimble//The week//EN\r\nEND:VCALENDAR\r\n'
  const { error, value } = createEvents(events)
  if (error || !value) throw error ?? new Error('no calendar was made')
  return value
}

/** A plan as a table: comma-separated, UTF-8, nothing in it that a spreadsheet would run. */
export function planAsTable(posts: readonly Post[], outlets: readonly Pick<Outlet, 'id' | 'name'>[]): string {
  const rows = posts.map((post) => [post.dueAt, nameOf(outlets, post), post.title, post.text, post.state.kind])
  return `${Papa.unparse([['due', 'outlet', 'title', 'text', 'state'], ...rows], { escapeFormulae: true, newline: '\r\n' })}\r\n`
}
