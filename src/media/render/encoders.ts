import { canEncodeAudio, canEncodeVideo, type AudioCodec, type VideoCodec } from 'mediabunny'
import type { Container } from '@/core/model/render'
import type { Size } from '@/core/geometry/rect'

export interface EncoderChoice {
  container: Container
  video: VideoCodec
  audio: AudioCodec
  /** Full codec string for H.264, to ask for High profile. */
  videoCodecString?: string
  /** Whether sound is coded by the AAC encoder that ships with the application, for want of one in the browser. */
  shippedAac: boolean
}

/** Level 4.2 carries 1080 × 1920 at 60 fps; level 5.2 carries 2160 × 3840 at 60 fps (Rec. ITU-T H.264, table A-1). */
function h264Level(size: Size): string {
  return size.width * size.height <= 1920 * 1088 ? '2a' : '34'
}

export function h264High({ width, height }: Size): string {
  return `avc1.6400${h264Level({ width, height })}`
}

/** The best this browser can write: MP4 with H.264 and AAC, else WebM with VP9 and Opus, else null. */
export async function chooseEncoders(size: Size, bitrate: number, withSound: boolean): Promise<EncoderChoice | null> {
  const videoCodecString = h264High(size)
  if (await canEncodeVideo('avc', { ...size, bitrate, fullCodecString: videoCodecString })) {
    const shippedAac = withSound && !(await canEncodeAudio('aac', { numberOfChannels: 2, sampleRate: 48000, bitrate: 128000 }))
    return { container: 'mp4', video: 'avc', audio: 'aac', videoCodecString, shippedAac }
  }
  if ((await canEncodeVideo('vp9', { ...size, bitrate })) && (await canEncodeAudio('opus'))) return { container: 'webm', video: 'vp9', audio: 'opus', shippedAac: false }
  return null
}

let registered = false

/** Loads what a choice needs that the browser does not have. */
export async function loadEncoders({ shippedAac }: EncoderChoice): Promise<void> {
  if (!shippedAac || registered) return
  const { registerAacEncoder } = await import('@mediabunny/aac-encoder')
  registerAacEncoder()
  registered = true
}
