/**
 * So much outside its heap, asked for since the last full collection, has V8 begin another by and by
 * (`kExternalAllocationSoftLimit`); twice as much and more, at once.
 */
const SOFT_LIMIT_BYTES = 64 * 1024 * 1024
const ASKED_BYTES = 3 * SOFT_LIMIT_BYTES

const EVERY_MS = 500

/**
 * Has the browser collect twice a second what passes through a render: packets as they were read, blocks of sound,
 * coded frames. In steady work nothing but its limit for memory outside its heap calls the collector, and all of that
 * is let go of little by little until it is reached, ever higher in longer renders (docs/performance.md, length). A
 * browser that was started so, as `npm run render` starts its own, is asked outright. In any other the limit is
 * passed on purpose, by a buffer that nobody writes into: no page of it is ever filled. A collection takes a
 * millisecond or two.
 */
export class Collecting {
  private last: number

  /** `ask` is told how many bytes to ask for; `now` gives milliseconds. */
  constructor(
    private readonly ask: (bytes: number) => void = askFor,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.last = now()
  }

  /** To be called often, between two pieces of work. */
  step(): void {
    const now = this.now()
    if (now - this.last < EVERY_MS) return
    this.last = now
    this.ask(ASKED_BYTES)
  }
}

function askFor(bytes: number): void {
  const { gc } = globalThis as { gc?: (options: { type: 'major' }) => void }
  if (gc) return gc({ type: 'major' })
  try {
    new ArrayBuffer(bytes)
  } catch {
    // There is no room for it: then the browser has just collected all it could.
  }
}
