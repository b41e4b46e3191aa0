import { startKernel, type Kernel } from './kernel'

/** Vectors are read whole: so many bytes behind what was asked for may be read, and are never anybody else's. */
export const GUARD_BYTES = 32

const PAGE = 65536
/** Below this the kernel keeps what it needs itself. */
const FIRST = PAGE
const ALIGN = 16

/** Hands out stretches of the kernel's memory. What is given back is handed out again to whoever asks for as much. */
export class PlaneHeap {
  private end = FIRST
  private readonly sizes = new Map<number, number>()
  private readonly free = new Map<number, number[]>()

  constructor(readonly kernel: Kernel) {}

  /** The start of `bytes` bytes, on a multiple of 16. Views of the memory made before are of no use after it. */
  take(bytes: number): number {
    const size = sizeClass(bytes + GUARD_BYTES)
    const spare = this.free.get(size)?.pop()
    if (spare !== undefined) return spare
    const at = this.end
    this.end += size
    const missing = this.end - this.kernel.memory.buffer.byteLength
    if (missing > 0) this.kernel.memory.grow(Math.ceil(missing / PAGE))
    this.sizes.set(at, size)
    return at
  }

  give(at: number): void {
    const size = this.sizes.get(at)
    if (size === undefined) throw new RangeError(`nothing was taken at ${at}`)
    const list = this.free.get(size)
    if (list) list.push(at)
    else this.free.set(size, [at])
  }

  /** A view of what was taken; good until the next {@link take}. */
  bytes(at: number, length: number): Uint8Array<ArrayBuffer> {
    return new Uint8Array(this.kernel.memory.buffer as ArrayBuffer, at, length)
  }

  /** Copies numbers in; where they begin. */
  put(values: Uint32Array | Int16Array): number {
    const at = this.take(values.byteLength)
    this.bytes(at, values.byteLength).set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength))
    return at
  }
}

/**
 * Sizes in steps of an eighth of their power of two: what is given back then fits what is asked for next, though it
 * is not quite the same.
 */
function sizeClass(bytes: number): number {
  const step = Math.max(ALIGN, 2 ** (Math.floor(Math.log2(bytes)) - 3))
  return Math.ceil(bytes / step) * step
}

let shipped: Promise<PlaneHeap | null> | null = null

/**
 * The kernel that ships with the application, with its memory; null where it cannot run. One for each worker, whoever
 * asks.
 */
export function shippedHeap(): Promise<PlaneHeap | null> {
  shipped ??= fetch('/kernel/planes.wasm')
    .then((answer) => (answer.ok ? answer.arrayBuffer() : Promise.reject(new Error(`${answer.status}`))))
    .then(startKernel)
    .then(
      (kernel) => new PlaneHeap(kernel),
      () => null,
    )
  return shipped
}
