/** A filter graph of ffmpeg under construction: its inputs and chains, and labels that are used once each. */
export class Graph {
  readonly inputs: string[] = []
  readonly chains: string[] = []
  private labels = 0

  /** Adds an input by its arguments; its number. */
  input(args: string): number {
    this.inputs.push(args)
    return this.inputs.length - 1
  }

  /** Adds a chain of filters from labels to a new one. */
  chain(from: readonly string[], filters: readonly string[]): string {
    const to = this.label()
    this.chains.push(`${from.map((l) => `[${l}]`).join('')}${filters.join(',')}[${to}]`)
    return to
  }

  /** The same stream several times over. */
  split(from: string, count: number): string[] {
    if (count === 1) return [from]
    const to = Array.from({ length: count }, () => this.label())
    this.chains.push(`[${from}]split=${count}${to.map((l) => `[${l}]`).join('')}`)
    return to
  }

  private label(): string {
    return `s${this.labels++}`
  }
}

/** Seconds as ffmpeg reads them, exact to a microsecond. */
export const secs = (micros: number): string => (micros / 1e6).toFixed(6)

/** A colour as ffmpeg reads it. */
export const colourOf = (hex: string): string => `0x${hex.slice(1)}`

/** Text as one word of a shell, whatever is in it. */
export const quoted = (text: string): string => `'${text.replaceAll("'", `'\\''`)}'`
