import { z } from 'zod'
import { frameRate } from './record'

/** What becomes of captions: on the picture, in a file beside it, both, or neither. */
export const captionsIn = z.enum(['picture', 'beside', 'both', 'neither'])
export type CaptionsIn = z.infer<typeof captionsIn>

/** How pictures and sound are coded, and what holds them. H.264 comes with AAC, the others with Opus. */
export const coding = z.enum(['mp4-h264', 'mp4-vp9', 'mp4-av1', 'webm-vp9', 'webm-av1'])
export type Coding = z.infer<typeof coding>

/**
 * How large a file's picture is: as its shape, at most so many pixels on the shorter side, or no larger than its
 * recordings are sharp.
 */
export const outputSize = z.enum(['shape', '1080', '720', 'sharp'])
export type OutputSize = z.infer<typeof outputSize>

/**
 * How a highlight is rendered, whatever its shapes and recordings: what core/output/renderSettings turns into
 * numbers.
 */
export const outputChoice = z.object({
  size: outputSize.default('shape'),
  /** Null: as recorded. */
  frameRate: frameRate.nullable(),
  quality: z.enum(['small', 'standard', 'high']),
  /** Bits per second for the picture, instead of what the quality comes to; null: by the quality. */
  videoBitrate: z.number().int().min(100_000).max(200_000_000).nullable().default(null),
  captions: captionsIn,
  coding: coding.default('mp4-h264'),
  /** Files are kept under so many bytes by a lower bitrate; null: as the quality comes to. */
  mostBytes: z.number().int().positive().nullable().default(null),
  /** The whole is made so loud, LUFS, its peaks held at -1 dBTP; null: as it is mixed. */
  loudness: z.number().min(-40).max(-5).nullable().default(null),
  /** Whether a still of it is saved with it. */
  poster: z.boolean().default(false),
  /** Whether a short one is saved as a looping GIF too. */
  loop: z.boolean().default(false),
})
export type OutputChoice = z.infer<typeof outputChoice>

export const USUAL_OUTPUT: OutputChoice = {
  size: 'shape',
  frameRate: null,
  quality: 'standard',
  videoBitrate: null,
  captions: 'picture',
  coding: 'mp4-h264',
  mostBytes: null,
  loudness: null,
  poster: false,
  loop: false,
}
