import type { Rect, Size } from './rect'

/** Sums over any rectangle of a picture, in constant time (Crow, 1984). */
export class SummedArea {
  /** `[height + 1][width + 1]` */
  private readonly sums: Uint32Array
  private readonly stride: number

  /**
   * `amountAt` is asked once for every pixel, by its index in `[height][width]`: a whole number from 0, or whether the
   * pixel counts. All of them together must stay under 2³².
   */
  constructor({ width, height }: Size, amountAt: (index: number) => number | boolean) {
    this.stride = width + 1
    this.sums = new Uint32Array(this.stride * (height + 1))
    for (let y = 0; y < height; y++) {
      let row = 0
      for (let x = 0; x < width; x++) {
        row += Number(amountAt(y * width + x))
        this.sums[(y + 1) * this.stride + x + 1] = (this.sums[y * this.stride + x + 1] as number) + row
      }
    }
  }

  /** In a rectangle of whole pixels inside the picture. */
  count({ x, y, width, height }: Rect): number {
    const at = (px: number, py: number) => this.sums[py * this.stride + px] as number
    return at(x + width, y + height) - at(x, y + height) - at(x + width, y) + at(x, y)
  }

  /** Share 0..1 of a rectangle of whole pixels inside the picture. */
  share(rect: Rect): number {
    return this.count(rect) / (rect.width * rect.height)
  }
}
