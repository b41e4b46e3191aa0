/** The parts of gifenc 1.0.3 that are used; it ships without types. */
declare module 'gifenc' {
  export type Palette = number[][]
  export interface GIFEncoder {
    /** `delay` in ms; `repeat` 0: for ever. */
    writeFrame(
      index: Uint8Array,
      width: number,
      height: number,
      options: { palette: Palette; delay: number; repeat: number },
    ): void
    finish(): void
    bytes(): Uint8Array
  }
  export function GIFEncoder(): GIFEncoder
  export function quantize(rgba: Uint8ClampedArray, colours: number): Palette
  export function applyPalette(rgba: Uint8ClampedArray, palette: Palette): Uint8Array
}
