import { VideoSampleSink, type InputVideoTrack, type VideoSample } from 'mediabunny'
import { asRecorded } from './asRecorded'
import { ReadAhead } from './readAhead'

/** Frames decoded and not yet taken. */
const MAX_AHEAD = 3

/**
 * The frames on screen at rising times, seconds of container time, each for the caller to close; null where there is
 * none. Leaving the loop stops the decoding.
 */
export async function* framesAt(
  track: InputVideoTrack,
  seconds: Iterable<number>,
): AsyncGenerator<VideoSample | null, void, unknown> {
  const ahead = new ReadAhead(MAX_AHEAD)
  const frames = new VideoSampleSink(track).samplesAtTimestamps(heldBack(seconds, ahead))
  try {
    for (;;) {
      const result = await ahead.take(() => frames.next())
      if (result.done) return
      yield result.value && (await asRecorded(result.value, track))
    }
  } finally {
    ahead.close()
    await frames.return()
  }
}

async function* heldBack(seconds: Iterable<number>, ahead: ReadAhead): AsyncGenerator<number, void, unknown> {
  for (const s of seconds) {
    await ahead.turn()
    yield s
  }
}
