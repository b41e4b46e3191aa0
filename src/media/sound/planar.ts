import type { AudioSample } from 'mediabunny'

/** Decoded sound as planar floats, one array a channel; the sample stays the caller's to close. */
export function toPlanar(sample: AudioSample): Float32Array[] {
  return Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
    const plane = new Float32Array(sample.numberOfFrames)
    sample.copyTo(plane, { format: 'f32-planar', planeIndex })
    return plane
  })
}
