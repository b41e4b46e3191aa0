import type { InputVideoTrack } from 'mediabunny'

/**
 * The AVCDecoderConfigurationRecord of a track of H.264 (ISO/IEC 14496-15); null for other tracks, and where start
 * codes stand between NAL units instead.
 */
export async function avcDescription(track: InputVideoTrack): Promise<Uint8Array | null> {
  const description = (await track.getCodec()) === 'avc' ? (await track.getDecoderConfig())?.description : undefined
  if (!description) return null
  return bytesOf(description)
}

export function bytesOf(buffer: AllowSharedBufferSource): Uint8Array {
  return ArrayBuffer.isView(buffer)
    ? new Uint8Array(buffer.buffer, buffer.byteOffset, buffer.byteLength)
    : new Uint8Array(buffer)
}
