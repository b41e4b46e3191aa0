/** Reads interleaved stereo that comes in blocks in the amounts asked for. */
export class BlockReader {
  private rest: Float32Array = new Float32Array(0)

  constructor(private readonly blocks: AsyncGenerator<Float32Array>) {}

  /** So many frames; after the end, silence. */
  async read(frames: number): Promise<Float32Array> {
    const there = await this.take(frames)
    if (there.length === frames * 2) return there
    const out = new Float32Array(frames * 2)
    out.set(there)
    return out
  }

  /** So many frames, or as many as there still are. */
  async take(frames: number): Promise<Float32Array> {
    const out = new Float32Array(frames * 2)
    let filled = 0
    while (filled < out.length) {
      if (this.rest.length === 0) {
        const { value, done } = await this.blocks.next()
        if (done) return out.slice(0, filled)
        this.rest = value
        continue
      }
      const taken = this.rest.subarray(0, out.length - filled)
      out.set(taken, filled)
      this.rest = this.rest.subarray(taken.length)
      filled += taken.length
    }
    return out
  }

  async close(): Promise<void> {
    await this.blocks.return(undefined)
  }
}
