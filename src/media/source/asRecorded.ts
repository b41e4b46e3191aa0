import { VideoSample, type InputVideoTrack } from 'mediabunny'

/** Coded pictures are made of blocks of so many pixels; what is shown may end within the last. */
const BLOCK = 16

/** Whether a frame has not the size that its track tells of: the recorder changed it part-way. */
export async function isOtherSize({ visibleRect }: VideoSample, track: InputVideoTrack): Promise<boolean> {
  const [width, height] = [await track.getCodedWidth(), await track.getCodedHeight()]
  return Math.abs(visibleRect.width - width) >= BLOCK || Math.abs(visibleRect.height - height) >= BLOCK
}

/**
 * A frame in the size of its track, stretched where it had another; the frame itself where not. What is given takes
 * the place of what was taken, which is closed.
 */
export async function asRecorded(sample: VideoSample, track: InputVideoTrack): Promise<VideoSample> {
  if (!(await isOtherSize(sample, track))) return sample
  const [width, height] = [await track.getCodedWidth(), await track.getCodedHeight()]
  const canvas = new OffscreenCanvas(width, height)
  const frame = sample.toVideoFrame()
  canvas.getContext('2d')?.drawImage(frame, 0, 0, width, height)
  frame.close()
  const { timestamp, duration, rotation, flip } = sample
  sample.close()
  return new VideoSample(canvas, { timestamp, duration, rotation, flip })
}
