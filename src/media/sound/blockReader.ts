/** Reads interleaved stereo that comes in blocks in the amounts asked for. */
export class BlockReader {
  private rest: Float32Array = new Float32Array(0)

  constructor(private readonly blocks: AsyncGenerator<Float32Array>) {}

  /** Fills `stereo`; after the end, with silence. */
  async read(stereo: Float32Array): Promise<void> {
    stereo.fill(0, await this.fill(stereo))
  }

  /** So many frames, or as many as there still are. */
  async take(frames: number): Promise<Float32Array> {
    const out = new Float32Array(frames * 2)
    const filled = await this.fill(out)
    return filled === out.length ? out : out.slice(0, filled)
  }

  /** Gives how many samples there were. */
  private async fill(out: Float32Array): Promise<number> {
    let filled = 0
    while (filled < out.length) {
      if (this.rest.length === 0) {
        const { value, done } = await this.blocks.next()
        if (done) break
        this.rest = value
        continue
      }
      const taken = this.rest.subarray(0, out.length - filled)
      out.set(taken, filled)
      this.rest = this.rest.subarray(taken.length)
      filled += taken.length
    }
    return filled
  }

  async close(): Promise<void> {
    await this.blocks.return(undefined)
  }
}
