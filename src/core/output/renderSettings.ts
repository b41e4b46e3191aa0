import type { Size } from '../geometry/rect'
import { firstRecordingOf, type Edit } from '../model/edit'
import type { CaptionsIn, OutputChoice } from '../model/outputChoice'
import type { Shape } from '../model/shape'
import type { Recording } from '../model/recording'
import type { Render, RenderSettings } from '../model/render'
import { framesPerSecond, type FrameRate } from '../time/frameRate'
import { toSeconds } from '../time/micros'
import { outputLength } from '../time/timeMap'
import { renderSize } from './renderSize'

/** Bits per pixel and frame: a 1080 × 1920 file at 30 fps comes to about 4, 8 and 14 Mbit/s. */
const BITS_PER_PIXEL: Readonly<Record<OutputChoice['quality'], number>> = { small: 0.064, standard: 0.129, high: 0.225 }

export const AUDIO_BITRATE = 160_000
const MIN_BITRATE = 100_000
const MAX_BITRATE = 100_000_000

/** Rates besides the recording's own. */
const RATES: readonly FrameRate[] = [24, 25, 30, 50, 60].map((num) => ({ num, den: 1 }))
const MAX_FPS = 60

/** The rate of a recording, as far as files are made. */
export function recordedRate({ video }: Pick<Recording, 'video'>): FrameRate {
  return framesPerSecond(video.frameRate) > MAX_FPS ? { num: MAX_FPS, den: 1 } : video.frameRate
}

/** The slowest rate that half of a recording's own is offered for. */
const MIN_HALF = 23.9

/**
 * The rates to choose from, the recording's own first, then the exact half of a fractional one. Never above it:
 * frames would only be shown twice.
 */
export function ratesFor(recording: Pick<Recording, 'video'>): readonly FrameRate[] {
  const own = recordedRate(recording)
  const half = own.num % 2 === 0 ? { num: own.num / 2, den: own.den } : { num: own.num, den: own.den * 2 }
  const halves = own.den !== 1 && framesPerSecond(half) >= MIN_HALF ? [half] : []
  return [own, ...halves, ...RATES.filter((r) => framesPerSecond(r) < framesPerSecond(own) - 0.1)]
}

/** What containers and encoders that are not exact take of a size limit. */
const KEPT_FREE = 0.06

/**
 * What a choice comes to for a shape of an edit that lasts so many seconds and whose first passage plays `recording`.
 * A rate above the recording's own is brought down to it.
 */
export function settingsFor(
  choice: OutputChoice,
  edit: Edit,
  shape: Shape,
  recording: Pick<Recording, 'video'>,
  seconds: number,
): RenderSettings {
  const { frameRate, quality, captions, mostBytes, coding, loudness, poster, loop } = choice
  const own = recordedRate(recording)
  const rate = frameRate && framesPerSecond(frameRate) < framesPerSecond(own) ? frameRate : own
  const size = renderSize(edit, shape, choice.size)
  const bitrate =
    choice.videoBitrate ?? Math.round(size.width * size.height * framesPerSecond(rate) * BITS_PER_PIXEL[quality])
  const most = mostBytes === null ? MAX_BITRATE : bitrateFor(mostBytes, seconds)
  const isByQuality = choice.videoBitrate === null && mostBytes === null
  return {
    size: size.width === shape.width && size.height === shape.height ? null : size,
    frameRate: rate,
    coding,
    constantQuality: isByQuality ? quality : null,
    videoBitrate: Math.max(MIN_BITRATE, Math.min(MAX_BITRATE, most, bitrate)),
    audioBitrate: AUDIO_BITRATE,
    captions,
    loudness,
    poster,
    loop: loop && seconds <= LONGEST_LOOP_SECONDS,
  }
}

/** Captions that are kept off the picture on the Bench do not come onto it unasked. */
export function captionsAsShown(choice: OutputChoice, { words }: Edit['highlight']): OutputChoice {
  if (words.captions.shown) return choice
  return { ...choice, captions: isBeside(choice.captions) ? 'beside' : 'neither' }
}

/** What a choice comes to for each of some shapes of an edit; none where its first recording is not known. */
export function wantedOf(
  edit: Edit,
  shapes: readonly Shape[],
  choice: OutputChoice,
): { shape: Shape; settings: RenderSettings }[] {
  const recording = firstRecordingOf(edit)
  if (!recording) return []
  const seconds = toSeconds(outputLength(edit.highlight))
  return shapes.map((shape) => ({ shape, settings: settingsFor(choice, edit, shape, recording, seconds) }))
}

/** Longer ones would be a waste as a GIF. */
export const LONGEST_LOOP_SECONDS = 15

/** The size of a file's picture, px. */
export const sizeOfFile = ({ shape, settings }: Pick<Render, 'shape' | 'settings'>): Size =>
  settings.size ?? { width: shape.width, height: shape.height }

/**
 * The picture's bitrate with which a file of so many seconds stays under a size; may be too little for anything, or
 * negative.
 */
export function bitrateFor(mostBytes: number, seconds: number): number {
  return Math.floor((mostBytes * (1 - KEPT_FREE) * 8) / Math.max(0.1, seconds) - AUDIO_BITRATE)
}

export const isOnPicture = (captions: CaptionsIn) => captions === 'picture' || captions === 'both'
export const isBeside = (captions: CaptionsIn) => captions === 'beside' || captions === 'both'

/** An edit with its captions on the picture, or without. */
export function editToDraw(edit: Edit, { captions }: Pick<RenderSettings, 'captions'>): Edit {
  const { highlight } = edit
  const shown = isOnPicture(captions)
  return highlight.words.captions.shown === shown
    ? edit
    : {
        ...edit,
        highlight: { ...highlight, words: { ...highlight.words, captions: { ...highlight.words.captions, shown } } },
      }
}
