import type { Post, PostFailure, PostState } from '../model/post'

export const DAY_MS = 86_400_000

/** Two posts on one outlet closer than this take each other's viewers. */
const CLOSE_MS = 3 * 3_600_000

/** The Monday, 0:00 local time, of the week that a moment lies in. */
export function weekStart(of: Date): Date {
  const day = new Date(of.getFullYear(), of.getMonth(), of.getDate())
  day.setDate(day.getDate() - ((day.getDay() + 6) % 7))
  return day
}

/** The seven days of a week, each at 0:00 local time; right across changes of the clock. */
export function daysOf(start: Date): Date[] {
  return Array.from({ length: 7 }, (_, n) => new Date(start.getFullYear(), start.getMonth(), start.getDate() + n))
}

/** The same time of day on another day, local time. */
export function onDay(at: Date, day: Date): Date {
  return new Date(day.getFullYear(), day.getMonth(), day.getDate(), at.getHours(), at.getMinutes())
}

export type WeekNote =
  /** The same file goes to the same outlet more than once. */
  | { kind: 'twice'; postIds: Post['id'][] }
  /** Two posts on one outlet lie close together. */
  | { kind: 'close'; postIds: Post['id'][]; minutes: number }
  /** Days without a post on an outlet that has posts before and after. */
  | { kind: 'gap'; outletId: Post['outletId']; days: number; from: string }

/**
 * What somebody would want to know of a plan: doublings, crowds and gaps, by outlet. `longestGapDays`: more days
 * without a post are a gap.
 */
export function notesOn(posts: readonly Post[], longestGapDays = 2): WeekNote[] {
  const notes: WeekNote[] = []
  for (const outletId of new Set(posts.map((p) => p.outletId))) {
    const own = posts.filter((p) => p.outletId === outletId).sort((a, b) => a.dueAt.localeCompare(b.dueAt))
    for (const renderId of new Set(own.map((p) => p.renderId))) {
      const same = own.filter((p) => p.renderId === renderId)
      if (same.length > 1) notes.push({ kind: 'twice', postIds: same.map((p) => p.id) })
    }
    own.slice(1).forEach((post, n) => {
      const before = own[n]
      if (!before) return
      const apart = Date.parse(post.dueAt) - Date.parse(before.dueAt)
      if (apart < CLOSE_MS)
        notes.push({ kind: 'close', postIds: [before.id, post.id], minutes: Math.round(apart / 60_000) })
      if (apart > (longestGapDays + 1) * DAY_MS)
        notes.push({ kind: 'gap', outletId, days: Math.floor(apart / DAY_MS), from: before.dueAt })
    })
  }
  return notes
}

/** What passes by itself is tried again: after 1, 2, 4, 8 and 16 minutes, then no more. */
const FIRST_WAIT_MS = 60_000
const MAX_ATTEMPTS = 6
const PASSING: ReadonlySet<PostFailure> = new Set(['offline', 'busy'])

/** What becomes of a post that failed for the `attempts`th time at `now`. */
export function afterFailure(reason: PostFailure, detail: string, attempts: number, now: Date): PostState {
  const again =
    PASSING.has(reason) && attempts < MAX_ATTEMPTS
      ? new Date(now.getTime() + FIRST_WAIT_MS * 2 ** (attempts - 1)).toISOString()
      : null
  return { kind: 'failed', reason, detail: detail.slice(0, 500), attempts, again }
}

/** Whether a post is to be sent at `now`: its time has come, or that of its next attempt. */
export function isDue({ state, dueAt }: Post, now: Date): boolean {
  if (state.kind === 'planned') return Date.parse(dueAt) <= now.getTime()
  return state.kind === 'failed' && state.again !== null && Date.parse(state.again) <= now.getTime()
}
