import { note } from '@/diagnostics/note'

/** After a round that failed, it is tried again so much later. */
const AGAIN_AFTER_MS = 5000

/** Something that is done over and over, in one tab at a time. */
export interface Chore {
  /** Whoever holds this lock does it; the other tabs wait for it. */
  lock: string
  /**
   * Done first by whoever comes to hold the lock, and again after a round that failed: what it was about has to be
   * seen to anew.
   */
  begin?: () => Promise<void>
  /** One round; it takes its own time, and waits in it until there is more to do. */
  round: () => Promise<void>
}

/** What a browser gives; tests give their own. */
interface Around {
  locks?: Pick<LockManager, 'request'>
  againAfterMs?: number
  onFailure?: (error: unknown) => void
}

const kept = new Set<string>()

/**
 * Keeps doing `chore` as long as this tab is open. A round that fails ends nothing: there may have been no room on
 * the disk to write down what was done, and there may be some again in a moment. Does nothing when this tab does it
 * already.
 */
export function keepDoing(
  { lock, begin = async () => {}, round }: Chore,
  { locks = navigator.locks, againAfterMs = AGAIN_AFTER_MS, onFailure = reportError }: Around = {},
): void {
  if (kept.has(lock)) return
  kept.add(lock)
  void locks.request(lock, async () => {
    for (let begun = false; ;) {
      try {
        if (!begun) await begin()
        begun = true
        await round()
      } catch (error) {
        note(lock, error)
        onFailure(error)
        begun = false
        await new Promise((resolve) => setTimeout(resolve, againAfterMs))
      }
    }
  })
}
