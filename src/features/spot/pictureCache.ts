import type { Analysis } from '@/core/detect/analysis'
import type { Micros } from '@/core/time/micros'

/** Decoded pictures kept: about six screens' worth. */
const MOST = 120

/** The analysis's small pictures, decoded when they are first wanted. `onReady` is told when one can be drawn. */
export class PictureCache {
  private readonly ready = new Map<Micros, ImageBitmap | null>()
  private times: Micros[] = []
  private blobs = new Map<Micros, Blob>()
  private known = 0

  constructor(private readonly onReady: () => void) {}

  update({ pictures }: Analysis): void {
    if (pictures.size === this.known) return
    this.known = pictures.size
    this.blobs = new Map(
      [...pictures.values()].flatMap((part) => part.pictures.map((p) => [p.micros, p.picture] as const)),
    )
    this.times = [...this.blobs.keys()].sort((a, b) => a - b)
  }

  /** The picture last made before or at `t`, within `reach`; null while it is not there yet. */
  at(t: Micros, reach: Micros): ImageBitmap | null {
    const index = lastAtOrBefore(this.times, t)
    const micros = this.times[index]
    if (micros === undefined || t - micros > reach) return null
    const cached = this.ready.get(micros)
    if (cached !== undefined) return cached
    const blob = this.blobs.get(micros)
    if (!blob) return null
    this.ready.set(micros, null)
    createImageBitmap(blob).then(
      (bitmap) => {
        this.ready.set(micros, bitmap)
        this.forget()
        this.onReady()
      },
      () => {},
    )
    return null
  }

  close(): void {
    for (const bitmap of this.ready.values()) bitmap?.close()
    this.ready.clear()
  }

  private forget(): void {
    for (const [micros, bitmap] of this.ready) {
      if (this.ready.size <= MOST) return
      this.ready.delete(micros)
      bitmap?.close()
    }
  }
}

function lastAtOrBefore(times: readonly Micros[], t: Micros): number {
  let [low, high] = [0, times.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((times[middle] ?? Infinity) <= t) low = middle + 1
    else high = middle
  }
  return low - 1
}
