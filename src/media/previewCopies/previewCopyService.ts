import { BufferTarget, canEncodeVideo, Mp4OutputFormat, Output, WebMOutputFormat, type VideoSample } from 'mediabunny'
import { wholeFrame } from '@/core/compose/wholeFrame'
import type { Recording } from '@/core/model/recording'
import { copyFormOf, MOST_FRAMES, type CopyForm } from '@/core/picture/previewCopy'
import { MICROS_PER_SECOND, toSeconds, type Micros } from '@/core/time/micros'
import { explain } from '@/diagnostics/note'
import { Turns } from '../ranks/turns'
import { isPlain } from '../planes/copyIn'
import { PictureMaker, type Surface } from '../render/pictureMaker'
import { h264High } from '../render/encoders'
import { FrameCursor } from '../source/frameCursor'
import { OpenSources } from '../source/openSources'
import type { Source } from '../source/openSource'
import { WantedTimes } from '../source/wantedTimes'
import type { PreviewCopyOutcome, PreviewCopyWorker } from '../workers/previewCopy.protocol'
import { encoderScales, ScalingEncoder } from './scalingEncoder'

/** Packets the decoder is given while a frame is scaled. */
const MOST_AHEAD = 10

interface Job {
  source: Source
  recording: Recording
  form: CopyForm
  fromMicros: Micros
  toMicros: Micros
}

/** Makes preview copies of recordings, a piece at a time. */
export class PreviewCopyService implements PreviewCopyWorker {
  private running: AbortController | null = null
  private readonly sources = new OpenSources()
  private pictures: Promise<PictureMaker> | null = null

  async make(recording: Recording, file: Blob, fromMicros: Micros, toMicros: Micros): Promise<PreviewCopyOutcome> {
    this.running?.abort()
    const abort = (this.running = new AbortController())
    const { id, originMicros } = recording
    try {
      const form = copyFormOf(recording)
      if (!form) throw new RangeError('a recording that needs no copy')
      const pictures = await (this.pictures ??= PictureMaker.start('canvas'))
      const made = await this.sources.use({ id, file, originMicros }, (source) =>
        copyPiece({ source, recording, form, fromMicros, toMicros }, pictures, abort.signal),
      )
      return { kind: 'made', file: made }
    } catch (error) {
      if (abort.signal.aborted) return { kind: 'stopped' }
      return { kind: 'failed', detail: explain('a preview copy', error) }
    } finally {
      if (this.running === abort) this.running = null
    }
  }

  stop(): void {
    this.running?.abort()
  }
}

async function copyPiece(job: Job, pictures: PictureMaker, signal: AbortSignal): Promise<Blob> {
  const { source, recording, form, fromMicros, toMicros } = job
  const { kind, config } = await codingOf(form)
  const encoder = new ScalingEncoder(config, kind, form)
  const output = new Output({
    format: kind === 'avc' ? new Mp4OutputFormat({ fastStart: 'in-memory' }) : new WebMOutputFormat(),
    target: new BufferTarget(),
  })
  output.addVideoTrack(encoder.track, { frameRate: form.frameRate })
  const scales = await encoderScales(config)
  const times = timesOf(job)
  const wanted = new WantedTimes()
  for (const t of times) wanted.add(t)
  const cursor = new FrameCursor(source, (from, to) => wanted.isUnseen(from, to), MOST_AHEAD)
  const surface = pictures.surface(form)
  const turns = new Turns('copies')
  try {
    await output.start()
    let last: Micros | null = null
    for (const t of times) {
      await turns.next(signal)
      wanted.forgetBefore(t)
      const frame = await cursor.frameAt(t)
      // The frame on screen when the piece begins may have begun before it.
      const at = frame && Math.max(fromMicros, source.toRecording(frame.timestamp))
      if (!frame || at === null || at === last || at >= toMicros) continue
      last = at
      const timing = { timestamp: at - fromMicros, duration: Math.round(MICROS_PER_SECOND / form.frameRate) }
      // What the encoder cannot take as it was decoded is drawn first: turned, in other colours, in odd pixels.
      await encoder.add(
        scales && isPlain(frame) ? retimed(frame, timing) : await drawn(frame, recording, t, pictures, surface, timing),
      )
    }
    await encoder.end()
    await output.finalize()
  } catch (error) {
    await output.cancel()
    throw error
  } finally {
    encoder.close()
    pictures.giveBack(surface)
    await cursor.close()
  }
  const { buffer } = output.target as BufferTarget
  if (!buffer) throw new Error('nothing was written')
  return new Blob([buffer], { type: kind === 'avc' ? 'video/mp4' : 'video/webm' })
}

/** How copies are coded: for speed, in what this browser can write. */
async function codingOf(form: CopyForm): Promise<{ kind: 'avc' | 'vp8'; config: VideoEncoderConfig }> {
  const { width, height, bitrate, frameRate } = form
  const config = { width, height, bitrate, framerate: frameRate, latencyMode: 'realtime' } as const
  const codec = h264High(form)
  return (await canEncodeVideo('avc', { ...form, fullCodecString: codec }))
    ? { kind: 'avc', config: { ...config, codec, avc: { format: 'avc' } } }
    : { kind: 'vp8', config: { ...config, codec: 'vp8' } }
}

/** Microseconds of a copy's own clock. */
interface Timing {
  timestamp: number
  duration: number
}

function retimed(sample: VideoSample, timing: Timing): VideoFrame {
  const frame = sample.toVideoFrame()
  try {
    return new VideoFrame(frame, timing)
  } finally {
    frame.close()
  }
}

async function drawn(
  frame: VideoSample,
  recording: Recording,
  t: Micros,
  pictures: PictureMaker,
  surface: Surface,
  { timestamp, duration }: Timing,
): Promise<VideoFrame> {
  const composition = wholeFrame(recording, t, 'copy')
  const [toSample] = await pictures.draw([{ surface, composition }], {
    frameOf: () => frame,
    imageOf: () => null,
    figureAt: () => [],
  })
  if (!toSample) throw new Error('nothing was drawn')
  const sample = await toSample({ timestamp: toSeconds(timestamp), duration: toSeconds(duration) })
  try {
    return sample.toVideoFrame()
  } finally {
    sample.close()
  }
}

/**
 * Times at which a piece is looked at, recording time: one in each frame that is kept. Where every frame is, so close
 * that none of a variable rate is passed over.
 */
function timesOf({ form, fromMicros, toMicros, recording }: Job): Micros[] {
  const step = MICROS_PER_SECOND / (form.every === 1 ? MOST_FRAMES : form.frameRate)
  const first = Math.floor(fromMicros / step)
  const end = Math.min(toMicros, recording.durationMicros)
  const times: Micros[] = []
  for (let n = first; n * step < end; n++) times.push(Math.max(fromMicros, Math.round(n * step)))
  return times
}
