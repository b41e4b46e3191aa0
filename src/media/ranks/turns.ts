import { Claims, type Rank } from '@/core/schedule/claims'

/** Tabs and workers of this browser tell each other here who is at work. */
const CHANNEL = 'brimble-ranks'

/** A claim that is made again and again is told of again when less than this is left of it. */
const TELLS_AGAIN_MS = 60

/** What waits looks again at least this often: something more urgent may have come. */
const LOOKS_AGAIN_MS = 25

/** The same for what waits until it is calm. */
const CALM_STEP_MS = 200

interface Claim {
  rank: Rank
  untilMs: number
  /** Whether it ends there, however long it was claimed for. */
  isOver?: boolean
}

const claims = new Claims()
const told = new Map<Rank, number>()
let channel: BroadcastChannel | null = null

/** The one clock of all threads and tabs, ms. */
const now = () => performance.timeOrigin + performance.now()

function open(): BroadcastChannel {
  if (channel) return channel
  channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<Claim>) => take(data)
  // Nobody waits for it: where Node runs this, it may end.
  ;(channel as { unref?: () => void }).unref?.()
  return channel
}

/** Says that `rank` is at work for the next `forMs`; whoever stands below it gives way, in every thread and tab. */
export function claim(rank: Rank, forMs: number): void {
  const untilMs = now() + forMs
  if ((told.get(rank) ?? 0) > untilMs - forMs + TELLS_AGAIN_MS) return
  told.set(rank, untilMs)
  tell({ rank, untilMs })
}

function tell(said: Claim): void {
  take(said)
  open().postMessage(said)
}

function take({ rank, untilMs, isOver }: Claim): void {
  if (isOver) claims.end(rank, untilMs)
  else claims.claim(rank, untilMs)
}

/** {@link claimWhile} claims anew this often, for longer: a thread that works hears no timer. */
const CLAIM_EVERY_MS = 500
const HOLDS_FOR_MS = 4000

/** Claims a rank for as long as `work` goes on. */
export async function claimWhile<T>(rank: Rank, work: () => Promise<T>): Promise<T> {
  const hold = () => tell({ rank, untilMs: now() + HOLDS_FOR_MS })
  hold()
  const timer = setInterval(hold, CLAIM_EVERY_MS)
  try {
    return await work()
  } finally {
    clearInterval(timer)
    tell({ rank, untilMs: now(), isOver: true })
  }
}

/**
 * The turns of one piece of work that goes on in steps: `await turns.next()` between them, every 30 ms or more often,
 * and it gives way to whatever is more urgent.
 */
export class Turns {
  private begun = now()

  constructor(private readonly rank: Rank) {
    open()
  }

  /** Resolves when it is its turn; rejects when `signal` is aborted. */
  async next(signal?: AbortSignal): Promise<void> {
    await breathe()
    const worked = now() - this.begun
    const from = now()
    for (;;) {
      signal?.throwIfAborted()
      const left = claims.restMs(this.rank, worked, from) - (now() - from)
      const urgent = claims.restMs(this.rank, 0, now())
      if (Math.max(left, urgent) <= 0) break
      await pause(Math.min(LOOKS_AGAIN_MS, Math.max(left, urgent)))
    }
    this.begun = now()
  }
}

/** What was told meanwhile is heard between tasks. Timers would take four milliseconds each. */
function breathe(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })
}

/**
 * Resolves when nobody has been at work at anything more urgent for a while: what takes long to begin begins then.
 * Rejects when `signal` is aborted.
 */
export async function untilCalm(rank: Rank, signal: AbortSignal): Promise<void> {
  open()
  await pause(LOOKS_AGAIN_MS)
  for (let left = claims.calmInMs(rank, now()); left > 0; left = claims.calmInMs(rank, now())) {
    signal.throwIfAborted()
    await pause(Math.min(left, CALM_STEP_MS))
  }
  signal.throwIfAborted()
}

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms))
