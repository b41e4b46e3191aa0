import { format } from 'date-fns'
import type { Outlet } from '@/core/model/outlet'
import type { Post, PostFailure } from '@/core/model/post'
import type { WeekNote } from '@/core/week/week'

const FAILURES: Record<PostFailure, string> = {
  offline: 'the outlet could not be reached',
  busy: 'the outlet had too much to do',
  'too-large': 'the file is larger than the outlet takes',
  refused: 'the outlet refused it',
  'signed-out': 'the sign-in has run out: sign in again, then try again',
  'file-gone': 'the file is no longer there: render it again and choose it',
  'text-too-long': 'its title or text is longer than the outlet takes',
}

export const timeOf = (iso: string) => format(new Date(iso), 'HH:mm')

/** Where a post stands, in words. */
export function stateWords({ state }: Post): string {
  switch (state.kind) {
    case 'planned':
      return 'planned'
    case 'sending':
      return 'being sent'
    case 'posted':
      return `posted at ${timeOf(state.at)}`
    case 'failed':
      return `${FAILURES[state.reason]}${state.again ? `; again at ${timeOf(state.again)}` : ''}`
  }
}

/** What there is to say about a plan, in words. */
export function noteWords(notes: readonly WeekNote[], posts: readonly Post[], outlets: readonly Outlet[]): string[] {
  const outletOf = (id: string) => outlets.find((o) => o.id === id)?.name ?? 'an outlet'
  const postOf = (id: string) => posts.find((p) => p.id === id)
  const dayOf = (iso: string) => format(new Date(iso), 'EEEE')
  return notes.map((note) => {
    if (note.kind === 'gap')
      return `${outletOf(note.outletId)}: nothing for ${note.days} days after ${dayOf(note.from)}.`
    const posts = note.postIds.map(postOf).filter((p) => p !== undefined)
    const titles = [...new Set(posts.map((p) => `“${p.title}”`))].join(' and ')
    const where = outletOf(posts[0]?.outletId ?? '')
    return note.kind === 'twice'
      ? `${where}: ${titles} goes there ${note.postIds.length} times, on ${posts.map((p) => dayOf(p.dueAt)).join(' and ')}.`
      : `${where}: ${titles} are ${note.minutes} minutes apart.`
  })
}
