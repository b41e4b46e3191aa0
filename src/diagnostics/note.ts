import { messageOf, nameOf, toEntry } from './entry'

/** Entries of every thread and tab go here; the page keeps them (`ring`). */
export const CHANNEL = 'brimble-diagnostics'

let channel: BroadcastChannel | null = null

/** Notes that something went wrong where nobody has to be told. What was stopped on purpose is not noted. */
export function note(where: string, error: unknown): void {
  if (nameOf(error) === 'AbortError' || typeof BroadcastChannel === 'undefined') return
  if (!channel) {
    channel = new BroadcastChannel(CHANNEL)
    // In Node.js an open channel would keep the process going.
    if ('unref' in channel && typeof channel.unref === 'function') channel.unref()
  }
  channel.postMessage(toEntry(where, error, new Date()))
}

/** For `catch`: notes the error and goes on with nothing. `expected`: names of errors that are part of the ordinary. */
export function quietly(where: string, ...expected: readonly string[]): (error: unknown) => undefined {
  return (error) => {
    if (!expected.includes(nameOf(error))) note(where, error)
  }
}

/** {@link quietly}, going on with null. */
export function nullOnError(where: string, ...expected: readonly string[]): (error: unknown) => null {
  const noteIt = quietly(where, ...expected)
  return (error) => noteIt(error) ?? null
}

/** Notes an error and gives what it says, for a sentence that tells of it. */
export function explain(where: string, error: unknown): string {
  note(where, error)
  return messageOf(error)
}
