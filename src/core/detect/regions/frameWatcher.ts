import type { Size } from '../../geometry/rect'
import { CELLS } from './motion'
import type { RegionEvidence } from './structure'
import { StillnessMeter } from './stillness'

/** One in so many frames is kept as it is. */
const KEPT_EVERY = 4

/** Gathers from frames, in the order of time, all that regions are recognised by. */
export class FrameWatcher {
  private readonly meter: StillnessMeter
  private readonly cells: Uint8Array[] = []
  private readonly frames: Uint8Array[] = []

  constructor(private readonly size: Size) {
    this.meter = new StillnessMeter(size)
  }

  /** A frame's 8-bit luma `[height][width]`. */
  add(luma: Uint8Array): void {
    if (this.cells.length % KEPT_EVERY === 1) this.frames.push(luma.slice())
    this.meter.add(luma)
    this.cells.push(averaged(luma, this.size))
  }

  seen(): RegionEvidence {
    return { stillness: this.meter.result(), cells: this.cells, frames: this.frames }
  }
}

/** Luma averaged down to {@link CELLS}; every second pixel of every second row counts. */
function averaged(luma: Uint8Array, { width, height }: Size): Uint8Array {
  const cells = new Uint8Array(CELLS.width * CELLS.height)
  for (let cy = 0; cy < CELLS.height; cy++)
    for (let cx = 0; cx < CELLS.width; cx++) {
      let sum = 0
      let count = 0
      const bottom = Math.floor(((cy + 1) * height) / CELLS.height)
      const right = Math.floor(((cx + 1) * width) / CELLS.width)
      for (let y = Math.floor((cy * height) / CELLS.height); y < bottom; y += 2)
        for (let x = Math.floor((cx * width) / CELLS.width); x < right; x += 2) {
          sum += luma[y * width + x] as number
          count++
        }
      cells[cy * CELLS.width + cx] = Math.round(sum / count)
    }
  return cells
}
