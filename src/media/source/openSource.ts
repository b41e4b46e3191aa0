import { ALL_FORMATS, BlobSource, Input, type InputAudioTrack, type InputVideoTrack } from 'mediabunny'
import { MICROS_PER_SECOND, toMicros, type Micros } from '@/core/time/micros'

/**
 * The clock of an open file, and letting go of it. This is the one place where the media library's container seconds
 * meet recording time.
 */
interface OpenFile {
  /** Container seconds (a library timestamp) → recording time. */
  toRecording: (containerSeconds: number) => Micros
  /** Recording time → container seconds. */
  toContainer: (t: Micros) => number
  dispose: () => void
}

/** A file opened for its sound alone. */
export interface SoundSource extends OpenFile {
  /** Null when there is no sound, or none that this browser decodes. */
  sound: InputAudioTrack | null
}

/**
 * An open recording. Bytes are read from the blob as they are needed, so memory does not grow with its length.
 * Whoever opens it calls `dispose`.
 */
export interface Source extends SoundSource {
  video: InputVideoTrack
}

/** Bytes of a file kept in memory after they were read; several workers have the same file open. */
const MAX_CACHED_BYTES = 2 << 20

export function openInput(blob: Blob): Input<BlobSource> {
  return new Input({ formats: ALL_FORMATS, source: new BlobSource(blob, { maxCacheSize: MAX_CACHED_BYTES }) })
}

async function soundOf(input: Input): Promise<InputAudioTrack | null> {
  const sound = await input.getPrimaryAudioTrack()
  return sound && (await sound.canDecode()) ? sound : null
}

/** Pictures up to this high are of standard definition (ITU-T H.273 leaves open what is not said). */
const MAX_SD_HEIGHT = 576
const SD_COLOURS: VideoColorSpaceInit = {
  primaries: 'smpte170m',
  transfer: 'smpte170m',
  matrix: 'smpte170m',
  fullRange: false,
}

/** Standard definition that does not say how its colours are meant is BT.601; a decoder would take it for BT.709. */
async function tellColours(track: InputVideoTrack): Promise<void> {
  const { matrix, primaries } = await track.getColorSpace()
  if (matrix || primaries || (await track.getCodedHeight()) > MAX_SD_HEIGHT) return
  const config = await track.getDecoderConfig()
  // Pictures coded as red, green and blue, and what the codec says in its own stream, are told apart by the decoder.
  if (config) track.getDecoderConfig = () => Promise.resolve({ ...config, colorSpace: SD_COLOURS })
}

function clockOf(input: Input, originMicros: number): OpenFile {
  return {
    toRecording: (seconds) => toMicros(seconds) - originMicros,
    toContainer: (t) => (t + originMicros) / MICROS_PER_SECOND,
    dispose: () => input.dispose(),
  }
}

/** Opens a recording that was probed before. Throws when the file is gone, cannot be read or has lost its picture. */
export async function openSource(blob: Blob, originMicros: number): Promise<Source> {
  const input = openInput(blob)
  try {
    const video = await input.getPrimaryVideoTrack()
    if (!video) throw new Error('no video track')
    await tellColours(video)
    return { video, sound: await soundOf(input), ...clockOf(input, originMicros) }
  } catch (error) {
    input.dispose()
    throw error
  }
}

/** Opens a file for its sound alone. Throws when the file is gone or cannot be read. */
export async function openSound(blob: Blob, originMicros: number): Promise<SoundSource> {
  const input = openInput(blob)
  try {
    return { sound: await soundOf(input), ...clockOf(input, originMicros) }
  } catch (error) {
    input.dispose()
    throw error
  }
}
