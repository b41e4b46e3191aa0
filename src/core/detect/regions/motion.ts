import type { Rect, Size } from '../../geometry/rect'

/** Frames are averaged down to this to see what moves. */
export const CELLS: Size = { width: 96, height: 54 }

/** A cell has changed between two frames when its mean luma has by more than this. */
const CHANGED = 5

export interface Movement {
  /** Share 0..1 of cells that change from one frame to the next, in the middle of all pairs of frames. */
  usual: number
  /** The same in the liveliest pair. */
  most: number
  /** Share of pairs in which hardly anything changes. */
  restful: number
}

/** What moves where, from small pictures of frames far apart, in the order of time. */
export class Motion {
  private readonly changed: readonly Uint8Array[]

  /**
   * `cells`: 8-bit luma of each frame averaged down to {@link CELLS}; `frame`: the size that rectangles are given in.
   */
  constructor(
    cells: readonly Uint8Array[],
    private readonly frame: Size,
  ) {
    this.changed = cells
      .slice(1)
      .map((now, n) =>
        now.map((value, i) => (Math.abs(value - ((cells[n] as Uint8Array)[i] as number)) > CHANGED ? 1 : 0)),
      )
  }

  /** What moves in a rectangle; cells that it only touches are left out when others are whole. */
  within(rect: Rect): Movement {
    const [left, right] = cellsInside(rect.x, rect.width, CELLS.width / this.frame.width)
    const [top, bottom] = cellsInside(rect.y, rect.height, CELLS.height / this.frame.height)
    const shares = this.changed.map((changed) => {
      let count = 0
      for (let y = top; y < bottom; y++)
        for (let x = left; x < right; x++) count += changed[y * CELLS.width + x] as number
      return count / ((right - left) * (bottom - top))
    })
    if (shares.length === 0) return { usual: 0, most: 0, restful: 1 }
    const sorted = [...shares].sort((a, b) => a - b)
    return {
      usual: sorted[sorted.length >> 1] as number,
      most: sorted.at(-1) as number,
      restful: shares.filter((s) => s < 0.01).length / shares.length,
    }
  }
}

function cellsInside(start: number, length: number, scale: number): [number, number] {
  const from = Math.ceil(start * scale - 1e-6)
  const to = Math.floor((start + length) * scale + 1e-6)
  return to > from ? [from, to] : [Math.floor(start * scale), Math.floor(start * scale) + 1]
}
