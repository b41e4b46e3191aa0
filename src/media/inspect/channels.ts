/** Work under way, by what it is for: a later call on the same channel stops the one before it. */
export class Channels {
  private readonly running = new Map<string, AbortController>()

  /** Runs `work` until it is done, or until a later call on the same channel stops it. */
  async run<T>(channel: string, work: (signal: AbortSignal) => Promise<T>): Promise<T> {
    this.stop([channel])
    const abort = new AbortController()
    this.running.set(channel, abort)
    try {
      return await work(abort.signal)
    } finally {
      if (this.running.get(channel) === abort) this.running.delete(channel)
    }
  }

  stop(channels: readonly string[]): void {
    for (const channel of channels) this.running.get(channel)?.abort()
  }
}
