import { ALL_FORMATS, BlobSource, Input, type InputAudioTrack, type InputVideoTrack } from 'mediabunny'
import { MICROS_PER_SECOND, toMicros, type Micros } from '@/core/time/micros'

/**
 * An open recording. Bytes are read from the blob as they are needed, so memory does not grow with its length. Whoever
 * opens it calls `dispose`. This is the one place where the media library's container seconds meet recording time.
 */
export interface Source {
  video: InputVideoTrack
  /** Null when there is no sound, or none that this browser decodes. */
  sound: InputAudioTrack | null
  /** Container seconds (a library timestamp) → recording time. */
  toRecording: (containerSeconds: number) => Micros
  /** Recording time → container seconds. */
  toContainer: (t: Micros) => number
  dispose: () => void
}

export function openInput(blob: Blob): Input<BlobSource> {
  return new Input({ formats: ALL_FORMATS, source: new BlobSource(blob) })
}

/** Opens a recording that was probed before. Throws when the file is gone, cannot be read or has lost its picture. */
export async function openSource(blob: Blob, originMicros: number): Promise<Source> {
  const input = openInput(blob)
  try {
    const video = await input.getPrimaryVideoTrack()
    if (!video) throw new Error('no video track')
    const sound = await input.getPrimaryAudioTrack()
    return {
      video,
      sound: sound && (await sound.canDecode()) ? sound : null,
      toRecording: (seconds) => toMicros(seconds) - originMicros,
      toContainer: (t) => (t + originMicros) / MICROS_PER_SECOND,
      dispose: () => input.dispose(),
    }
  } catch (error) {
    input.dispose()
    throw error
  }
}
