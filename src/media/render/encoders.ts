import { canEncodeAudio, canEncodeVideo, type VideoCodec } from 'mediabunny'
import type { Size } from '@/core/geometry/rect'
import type { Coding, OutputChoice } from '@/core/model/outputChoice'
import type { Container } from '@/core/model/render'

export interface EncoderChoice {
  container: Container
  video: VideoCodec
  audio: 'aac' | 'opus'
  /** Full codec string for H.264, to ask for High profile. */
  videoCodecString?: string
  /** Whether sound is coded by the AAC encoder that ships with the application, for want of one in the browser. */
  shippedAac: boolean
}

/**
 * Quantizers, 0..63, with which encoders that can hold a quality do so. H.264 is left to its bitrate: no browser's
 * own encoder takes one.
 */
export const QUANTIZERS: Partial<Record<VideoCodec, Record<OutputChoice['quality'], number>>> = {
  vp9: { small: 44, standard: 36, high: 28 },
  av1: { small: 45, standard: 37, high: 29 },
}

/** Level 4.2 carries 1080 × 1920 at 60 fps; level 5.2 carries 2160 × 3840 at 60 fps (Rec. ITU-T H.264, table A-1). */
function h264Level(size: Size): string {
  return size.width * size.height <= 1920 * 1088 ? '2a' : '34'
}

export function h264High({ width, height }: Size): string {
  return `avc1.6400${h264Level({ width, height })}`
}

/** Whether the shipped AAC encoder stands in for one that the browser lacks. */
let registered = false

/** What this browser can write that comes nearest to `coding`: that, else VP9 and Opus in WebM, else null. */
export async function chooseEncoders(
  size: Size,
  bitrate: number,
  withSound: boolean,
  coding: Coding,
): Promise<EncoderChoice | null> {
  const [container, codec] = coding.split('-') as [Container, 'h264' | 'vp9' | 'av1']
  if (codec === 'h264') {
    const videoCodecString = h264High(size)
    if (await canEncodeVideo('avc', { ...size, bitrate, fullCodecString: videoCodecString })) {
      // Once it is registered, the shipped one is found as if it were the browser's.
      const shippedAac =
        withSound &&
        (registered || !(await canEncodeAudio('aac', { numberOfChannels: 2, sampleRate: 48000, bitrate: 128000 })))
      return { container: 'mp4', video: 'avc', audio: 'aac', videoCodecString, shippedAac }
    }
  } else if ((await canEncodeVideo(codec, { ...size, bitrate })) && (await canEncodeAudio('opus')))
    return { container, video: codec, audio: 'opus', shippedAac: false }
  if ((await canEncodeVideo('vp9', { ...size, bitrate })) && (await canEncodeAudio('opus')))
    return { container: 'webm', video: 'vp9', audio: 'opus', shippedAac: false }
  return null
}

/** Loads what a choice needs that the browser does not have. */
export async function loadEncoders({ shippedAac }: EncoderChoice): Promise<void> {
  if (!shippedAac || registered) return
  const { registerAacEncoder } = await import('@mediabunny/aac-encoder')
  registerAacEncoder()
  registered = true
}
