import type { Entry } from './entry'
import { CHANNEL, note } from './note'

const KEY = 'brimble-diagnostics'
export const MAX_ENTRIES = 200

/** Entries with another one: the newest last, none twice, the oldest gone when there are too many. */
export function withEntry(entries: readonly Entry[], entry: Entry): Entry[] {
  return entries.some((e) => e.id === entry.id) ? [...entries] : [...entries, entry].slice(-MAX_ENTRIES)
}

/** What is kept, the oldest first. Never throws: storage that is full or shut holds nothing. */
export function readRing(): Entry[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]')
    return Array.isArray(kept) ? kept.filter(isEntry) : []
  } catch {
    return []
  }
}

export function clearRing(): void {
  try {
    localStorage.removeItem(KEY)
  } catch {
    // Storage is shut: nothing was kept in it.
  }
}

/** Calls back with what is noted in any thread or tab, until the returned function is called. */
export function watchEntries(onEntry: (entry: Entry) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<unknown>) => {
    if (isEntry(data)) onEntry(data)
  }
  return () => channel.close()
}

/** Keeps what is noted in any thread or tab, and errors that nobody caught, until the returned function is called. */
export function keepRing(): () => void {
  const stopWatching = watchEntries((entry) => {
    try {
      localStorage.setItem(KEY, JSON.stringify(withEntry(readRing(), entry)))
    } catch {
      // No room for it: the work goes on without.
    }
  })
  const onError = (event: ErrorEvent) => note('a page', event.error)
  const onRejection = (event: PromiseRejectionEvent) => note('a page', event.reason)
  window.addEventListener('error', onError)
  window.addEventListener('unhandledrejection', onRejection)
  return () => {
    stopWatching()
    window.removeEventListener('error', onError)
    window.removeEventListener('unhandledrejection', onRejection)
  }
}

/** The entries as a text to be read by people, the newest first. */
export function ringAsText(entries: readonly Entry[]): string {
  return entries
    .toReversed()
    .map(({ at, where, name, message, stack }) => `${at}  ${where}\n${name}: ${message}\n${stack}`.trim())
    .join('\n\n')
}

function isEntry(value: unknown): value is Entry {
  if (typeof value !== 'object' || value === null) return false
  const fields: (keyof Entry)[] = ['id', 'at', 'where', 'name', 'message', 'stack']
  return fields.every((field) => typeof (value as Record<string, unknown>)[field] === 'string')
}
