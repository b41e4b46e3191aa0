import type { Size } from '../geometry/rect'

/**
 * Bytes at the start of a picture's file that are enough for {@link imageSize}, but for JPEG files with large notes
 * in front.
 */
export const IMAGE_HEADER_BYTES = 262_144

/**
 * The size that a PNG, GIF, WebP or JPEG file says it has, px, without decoding it; null where its start does not
 * say.
 */
export function imageSize(start: Uint8Array): Size | null {
  const view = new DataView(start.buffer, start.byteOffset, start.byteLength)
  const text = (at: number, length: number) => String.fromCharCode(...start.subarray(at, at + length))
  if (start.length >= 24 && text(1, 3) === 'PNG') return { width: view.getUint32(16), height: view.getUint32(20) }
  if (start.length >= 10 && text(0, 3) === 'GIF')
    return { width: view.getUint16(6, true), height: view.getUint16(8, true) }
  if (start.length >= 30 && text(0, 4) === 'RIFF' && text(8, 4) === 'WEBP') return webpSize(view, text(12, 4))
  if (start.length >= 4 && view.getUint16(0) === 0xffd8) return jpegSize(view)
  return null
}

/** Of the first chunk of a WebP file (RFC 9649): extended, lossless or lossy. */
function webpSize(view: DataView, chunk: string): Size | null {
  const three = (at: number) => view.getUint16(at, true) + 65_536 * view.getUint8(at + 2)
  if (chunk === 'VP8X') return { width: three(24) + 1, height: three(27) + 1 }
  if (chunk === 'VP8L') {
    const bits = view.getUint32(21, true)
    return { width: (bits & 0x3fff) + 1, height: ((bits >>> 14) & 0x3fff) + 1 }
  }
  return chunk === 'VP8 '
    ? { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff }
    : null
}

/** Of the first frame header of a JPEG file (ITU-T T.81, B.2.2). */
function jpegSize(view: DataView): Size | null {
  for (let at = 2; at + 9 < view.byteLength;) {
    if (view.getUint8(at) !== 0xff) return null
    const marker = view.getUint8(at + 1)
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc
    if (isFrame) return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) }
    const length = view.getUint16(at + 2)
    if (length < 2) return null
    at += 2 + length
  }
  return null
}
