import type { Micros } from '@/core/time/micros'

/** Times of a recording that will be asked for, in rising order, as far as they are known. */
export class WantedTimes {
  private readonly times: Micros[] = []

  add(t: Micros): void {
    if (t !== this.times.at(-1)) this.times.push(t)
  }

  /** Those before `t` have been asked for. */
  forgetBefore(t: Micros): void {
    while (this.times.length > 1 && (this.times[0] ?? t) < t) this.times.shift()
  }

  /** Whether nobody will look at `from ≤ t < to`; false where that is not known. */
  isUnseen(from: Micros, to: Micros): boolean {
    const last = this.times.at(-1)
    return last !== undefined && last >= to && !this.times.some((t) => t >= from && t < to)
  }
}
