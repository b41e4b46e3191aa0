/**
 * What people call a codec, from a container's own code for it ('hvc1', 'V_MPEGH/ISO/HEVC', 0x24, …) or its short
 * name.
 */
const NAMES: readonly [RegExp, string][] = [
  [/hevc|hvc1|hev1|mpegh|^36$/i, 'H.265 (HEVC)'],
  [/avc|h264|^27$/i, 'H.264'],
  [/mp4v|mpeg4|^16$/i, 'MPEG-4 Part 2'],
  [/mpeg2|mp2v|m2v1|^2$/i, 'MPEG-2'],
  [/mpeg1|^1$/i, 'MPEG-1'],
  [/vp8/i, 'VP8'],
  [/vp0?9/i, 'VP9'],
  [/av0?1/i, 'AV1'],
  [/apc|ap4|prores/i, 'ProRes'],
  [/vvc|vvi1/i, 'H.266 (VVC)'],
  [/mjpe?g|jpeg/i, 'Motion JPEG'],
  [/ffv1/i, 'FFV1'],
  [/theora/i, 'Theora'],
  [/mp4a|aac/i, 'AAC'],
  [/eac-?3|ec-3/i, 'E-AC-3'],
  [/ac-?3/i, 'AC-3'],
  [/dts/i, 'DTS'],
  [/vorbis/i, 'Vorbis'],
  [/opus/i, 'Opus'],
  [/flac/i, 'FLAC'],
  [/alac/i, 'ALAC'],
  [/^\.?mp3|mpeg\/l3|^mp2$|^mp1$/i, 'MP3'],
  [/pcm|sowt|twos|lpcm|ulaw|alaw/i, 'PCM'],
]

export function codecName(code: string | number | Uint8Array | null): string {
  const text = code instanceof Uint8Array ? String.fromCharCode(...code) : String(code ?? '')
  const printable = text.replace(/[^\x20-\x7e]/g, '').slice(0, 40)
  return NAMES.find(([pattern]) => pattern.test(printable))?.[1] ?? (printable || 'an unknown codec')
}
