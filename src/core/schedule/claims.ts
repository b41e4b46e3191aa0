/**
 * What a machine can be asked for at one time, the most urgent first: what somebody's hand does, sound that is heard,
 * the picture at rest, playing, files being made, what is found, looks along footage, preview copies, and analysis of
 * whole recordings.
 */
export const RANKS = ['hand', 'sound', 'rest', 'playback', 'render', 'findings', 'looks', 'copies', 'analysis'] as const
export type Rank = (typeof RANKS)[number]

/** What goes on for long: those below it work on at a share of the time, or they would never be done. */
const LASTING: ReadonlySet<Rank> = new Set(['sound', 'playback', 'render', 'looks', 'copies'])

/** So many times as long as it worked does a lower rank rest beside one that lasts: a fifth of the time is its own. */
const RESTS_FOR = 4

/** It is calm when what is over soon has been over for so long: who has done something goes on doing so. */
const CALM_MS = 3000
/** What somebody may only need later waits until it is calm. */
const FOR_LATER: ReadonlySet<Rank> = new Set(['copies'])

/** Nobody rests longer at a time beside what lasts, however long a step was. */
const MOST_REST_MS = 1000

/** Who is at work, and until when at least; times in ms of any one clock. */
export class Claims {
  private readonly until = new Map<Rank, number>()

  /** `rank` is at work until `untilMs`; a claim becomes no shorter until it is ended. */
  claim(rank: Rank, untilMs: number): void {
    this.until.set(rank, Math.max(untilMs, this.until.get(rank) ?? 0))
  }

  /** What was claimed for `rank` is over at `untilMs`; whoever else is at work in it claims it again. */
  end(rank: Rank, untilMs: number): void {
    this.until.set(rank, Math.min(untilMs, this.until.get(rank) ?? untilMs))
  }

  /** How long until what is over soon, and more urgent than `rank`, has been over for a while; 0 when it has been. */
  calmInMs(rank: Rank, nowMs: number): number {
    return Math.max(
      0,
      ...above(rank)
        .filter((r) => !LASTING.has(r))
        .map((r) => this.left(r, nowMs) + CALM_MS),
    )
  }

  /**
   * How long `rank` is to wait at `nowMs`, after it has worked for `workedMs`; 0 for not at all. Beside what is over
   * soon it waits until that is over, what is for later a while longer; beside what lasts for some times as long as it
   * worked.
   */
  restMs(rank: Rank, workedMs: number, nowMs: number): number {
    if (FOR_LATER.has(rank) && this.calmInMs(rank, nowMs) > 0) return this.calmInMs(rank, nowMs)
    const left = above(rank).map((r) => ({ lasts: LASTING.has(r), ms: this.left(r, nowMs) }))
    const brief = Math.max(0, ...left.filter((l) => !l.lasts).map((l) => l.ms))
    if (brief > 0) return brief
    return left.some((l) => l.lasts && l.ms > 0) ? Math.min(MOST_REST_MS, RESTS_FOR * workedMs) : 0
  }

  private left(rank: Rank, nowMs: number): number {
    return (this.until.get(rank) ?? -Infinity) - nowMs
  }
}

const above = (rank: Rank) => RANKS.slice(0, RANKS.indexOf(rank))
