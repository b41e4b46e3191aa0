/**
 * What kernel/planes.ts compiles to. Every number is a byte offset, a size in samples or a stride in bytes; see
 * there.
 */
export interface Kernel {
  memory: WebAssembly.Memory
  resample: (
    src: number,
    srcStride: number,
    srcHeight: number,
    dst: number,
    dstStride: number,
    dstWidth: number,
    dstHeight: number,
    outputs: number,
    xIndex: number,
    xCoefs: number,
    xTaps: number,
    yIndex: number,
    yCoefs: number,
    yTaps: number,
    ring: number,
    ringRows: number,
    rows: number,
  ) => void
  layOver: (
    dst: number,
    dstStride: number,
    src: number,
    alpha: number,
    stride: number,
    spans: number,
    height: number,
  ) => void
  mix: (
    dst: number,
    dstStride: number,
    src: number,
    srcStride: number,
    mask: number,
    maskStride: number,
    opacity: number,
    width: number,
    height: number,
  ) => void
  tint: (dst: number, dstStride: number, value: number, opacity: number, width: number, height: number) => void
  fill: (dst: number, stride: number, value: number, width: number, height: number) => void
  copy: (dst: number, dstStride: number, src: number, srcStride: number, width: number, height: number) => void
  transpose: (dst: number, dstStride: number, src: number, srcStride: number, width: number, height: number) => void
  split: (
    first: number,
    second: number,
    dstStride: number,
    src: number,
    srcStride: number,
    width: number,
    height: number,
  ) => void
  premultiplied: (
    rgba: number,
    width: number,
    height: number,
    luma: number,
    alpha: number,
    blue: number,
    red: number,
    halfAlpha: number,
  ) => void
}

/** Starts the kernel. Rejects where WebAssembly has no SIMD. */
export async function startKernel(bytes: BufferSource): Promise<Kernel> {
  const { instance } = await WebAssembly.instantiate(bytes, {
    env: {
      abort: () => {
        throw new Error('the kernel gave up')
      },
    },
  })
  return instance.exports as unknown as Kernel
}
