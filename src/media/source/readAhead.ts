/** Whoever waits and gets nothing lets the source go on after this long: some decoders hold back more than others. */
const IMPATIENCE_MS = 5

/**
 * Holds a source back to a number of things ahead of whoever takes what comes of them. The library that decodes would
 * go on for forty frames or more, which is 125 MB of 1080p in every place where frames are taken slowly. One source,
 * one taker that awaits one call before the next.
 */
export class ReadAhead {
  private given = 0
  private taken = 0
  private waiting = false
  private closed = false
  private wake: () => void = () => {}

  constructor(private readonly most: number) {}

  /** For the source, before it gives the next thing. */
  async turn(): Promise<void> {
    this.given++
    while (!this.closed && this.given - this.taken > this.most) {
      const woken = new Promise<boolean>((resolve) => (this.wake = () => resolve(false)))
      const impatient =
        this.waiting && new Promise<boolean>((resolve) => setTimeout(() => resolve(this.waiting), IMPATIENCE_MS))
      if (await (impatient ? Promise.race([woken, impatient]) : woken)) return
    }
  }

  /** For the taker: `next` gives what has come. What the source gave without asking for its turn does not count. */
  async take<T>(next: () => Promise<T>, counts: (taken: T) => boolean = () => true): Promise<T> {
    this.waiting = true
    this.wake()
    try {
      const result = await next()
      if (counts(result)) this.taken++
      return result
    } finally {
      this.waiting = false
      this.wake()
    }
  }

  /** Nothing is held back any more. */
  close(): void {
    this.closed = true
    this.wake()
  }
}
