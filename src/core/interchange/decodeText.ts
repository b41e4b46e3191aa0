/**
 * The text of a file in the encodings that people have: UTF-8 with or without a mark, UTF-16 with a mark or plainly
 * so, else Windows-1252, in which every byte is a letter. Never throws.
 */
export function decodeText(bytes: Uint8Array): string {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  const nulls = evenAndOddNulls(bytes.subarray(0, 2000))
  if (nulls.odd > 0.3) return new TextDecoder('utf-16le').decode(bytes)
  if (nulls.even > 0.3) return new TextDecoder('utf-16be').decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** Shares of bytes that are 0 in even and in odd places: half of Western letters in UTF-16. */
function evenAndOddNulls(bytes: Uint8Array): { even: number; odd: number } {
  let even = 0
  let odd = 0
  bytes.forEach((byte, i) => {
    if (byte === 0 && i % 2 === 0) even++
    else if (byte === 0) odd++
  })
  const half = Math.max(1, bytes.length / 2)
  return { even: even / half, odd: odd / half }
}
