import LineBreaker from 'linebreak'

/** A line of a text: characters `from`..`to`, end-exclusive, without the spaces around. */
export interface Line {
  from: number
  to: number
}

/** Ends of phrases: what a reader pauses at anyway. */
const PHRASE_END = /[.,;:!?…–—。、，！？：；]["'”’)\]]*$/u

/** Words that begin a phrase. */
const PHRASE_START =
  /^(and|but|or|so|because|that|which|who|when|while|if|then|und|aber|oder|weil|dass|wenn|et|mais|ou|que|y|pero|o|porque)$/iu

/** A line that ends elsewhere than a phrase counts as much as lines whose widths differ by this share, squared. */
const COST_OF_TEARING = 0.5
const COST_BEFORE_PHRASE = 0.2

interface Opportunity {
  at: number
  required: boolean
  cost: number
}

/** Where a line may end (Unicode Standard Annex 14), and what that costs the reader. */
function opportunities(text: string): Opportunity[] {
  const breaker = new LineBreaker(text)
  const found: Opportunity[] = []
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    const before = text.slice(0, next.position).trimEnd()
    const after = /^\S+/u.exec(text.slice(next.position))?.[0] ?? ''
    const cost = costBetween(before, after)
    found.push({ at: next.position, required: next.required && next.position < text.length, cost })
  }
  return found
}

/**
 * Breaks a text into as few lines as it needs, at most `most`, none wider than `width`; at the ends of phrases where
 * that does not make them too unlike, else evenly. Null when it takes more lines or has a piece that is wider than a
 * line. `measure`: width of a piece of text.
 */
export function breakLines(
  text: string,
  width: number,
  most: number,
  measure: (text: string) => number,
): Line[] | null {
  const ends = opportunities(text)
  const line = (from: number, to: number): Line => {
    const piece = text.slice(from, to)
    return { from: from + (piece.length - piece.trimStart().length), to: from + piece.trimEnd().length }
  }
  const widths = new Map<string, number>()
  const widthOf = (from: number, to: number) => {
    const key = `${from} ${to}`
    let known = widths.get(key)
    if (known === undefined) {
      const l = line(from, to)
      widths.set(key, (known = measure(text.slice(l.from, l.to))))
    }
    return known
  }
  for (let lines = 1; lines <= most; lines++) {
    let best: { cost: number; cuts: number[] } | null = null
    /**
     * Goes on from `cuts`, which cost `torn`, after lines between `narrowest` and `widest`; not where that is no
     * better than the best already, as further lines only cost more and are only more unlike.
     */
    const walk = (cuts: number[], torn: number, narrowest: number, widest: number) => {
      const from = cuts.at(-1) ?? 0
      const left = lines - cuts.length
      // Spaces at the ends of lines go, and the last letters of words may join; more than that cannot be gained.
      if (widthOf(from, text.length) > left * width * 1.2) return
      for (const end of ends) {
        if (end.at <= from) continue
        const w = widthOf(from, end.at)
        if (w > width) break
        const isLast = end.at === text.length
        if (isLast ? left === 1 : left > 1) {
          const [thin, thick] = [Math.min(narrowest, w), Math.max(widest, w)]
          const cost = torn + (isLast || end.required ? 0 : end.cost)
          const atLeast = cost + ((thick - thin) / Math.max(1, thick)) ** 2
          if (!best || atLeast < best.cost) {
            if (isLast) best = { cost: atLeast, cuts: [...cuts, end.at] }
            else walk([...cuts, end.at], cost, thin, thick)
          }
        }
        if (end.required) break
      }
    }
    walk([], 0, Infinity, 0)
    const layout = best as { cost: number; cuts: number[] } | null
    if (layout) return layout.cuts.map((to, i) => line(layout.cuts[i - 1] ?? 0, to))
  }
  return null
}

function costBetween(before: string, after: string): number {
  if (PHRASE_END.test(before)) return 0
  return PHRASE_START.test(after) ? COST_BEFORE_PHRASE : COST_OF_TEARING
}
