import type { Size } from '../../geometry/rect'

/** What a picture's brightness does over time, from frames far apart. All arrays are `[height][width]`. */
export interface Stillness extends Size {
  frames: number
  /**
   * In how many frames brightness steps from the pixel to the left; 0 in column 0. What holds still steps in the same
   * place in nearly all.
   */
  stepsX: Uint8Array
  /** The same from the pixel above. */
  stepsY: Uint8Array
  /** Difference of the brightest and the darkest that each pixel has been. */
  range: Uint8Array
  mean: Uint8Array
}

/** A difference in 8-bit luma that is a step; coding makes smaller ones. */
const STEP = 7

/** Counts of so many fit into 8 bits, and sums of their luma into 16. */
const MAX_FRAMES = 255

/** Gathers frames of one size, 8-bit luma `[height][width]`, rows `stride` bytes apart. */
export class StillnessMeter {
  private readonly stepsX: Uint8Array
  private readonly stepsY: Uint8Array
  private readonly sum: Uint16Array
  private readonly least: Uint8Array
  private readonly most: Uint8Array
  private frames = 0

  constructor(private readonly size: Size) {
    const pixels = size.width * size.height
    this.stepsX = new Uint8Array(pixels)
    this.stepsY = new Uint8Array(pixels)
    this.sum = new Uint16Array(pixels)
    this.least = new Uint8Array(pixels).fill(255)
    this.most = new Uint8Array(pixels)
  }

  /** Throws RangeError after {@link MAX_FRAMES}. */
  add(luma: Uint8Array, stride = this.size.width): void {
    if (this.frames >= MAX_FRAMES) throw new RangeError(`frames: more than ${MAX_FRAMES}`)
    const { width, height } = this.size
    const { stepsX, stepsY, sum, least, most } = this
    this.frames++
    for (let y = 0; y < height; y++) {
      const row = y * stride
      const above = y > 0 ? row - stride : row
      let left = luma[row] as number
      for (let x = 0, i = y * width; x < width; x++, i++) {
        const value = luma[row + x] as number
        const dx = value - left
        const dy = value - (luma[above + x] as number)
        left = value
        if (dx > STEP || dx < -STEP) stepsX[i] = (stepsX[i] as number) + 1
        if (dy > STEP || dy < -STEP) stepsY[i] = (stepsY[i] as number) + 1
        sum[i] = (sum[i] as number) + value
        if (value < (least[i] as number)) least[i] = value
        if (value > (most[i] as number)) most[i] = value
      }
    }
  }

  /** Throws RangeError before any frame was added. */
  result(): Stillness {
    const n = this.frames
    if (n === 0) throw new RangeError('frames: none was added')
    const pixels = this.sum.length
    const [mean, range] = [new Uint8Array(pixels), new Uint8Array(pixels)]
    for (let i = 0; i < pixels; i++) {
      mean[i] = Math.round((this.sum[i] as number) / n)
      range[i] = (this.most[i] as number) - (this.least[i] as number)
    }
    return { ...this.size, frames: n, stepsX: this.stepsX.slice(), stepsY: this.stepsY.slice(), mean, range }
  }
}
