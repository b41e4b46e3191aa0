import { AudioSampleSource, Mp4OutputFormat, Output, Quality, StreamTarget, VideoSampleSource, WebMOutputFormat, type StreamTargetChunk } from 'mediabunny'
import { compose } from '@/core/compose/compose'
import { feedsOf } from '@/core/compose/composition'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { FinishedFile, RenderFailure, RenderSettings } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { editToDraw } from '@/core/output/renderSettings'
import type { SpeechOf } from '@/core/sound/ducking'
import { figureAt } from '@/core/sound/levelFigure'
import { soundPlan } from '@/core/sound/soundPlan'
import { frameCount, frameStartMicros, framesPerSecond } from '@/core/time/frameRate'
import { MICROS_PER_SECOND, toSeconds, type Micros } from '@/core/time/micros'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import { Composer, type Material } from '../draw/composer'
import { chooseEncoders, loadEncoders, type EncoderChoice } from './encoders'
import { PictureCanvas } from './pictureCanvas'
import { levelTrack } from '../sound/levelTrack'
import { Mixer, SoundSources } from '../sound/mixer'
import { OUTPUT_SAMPLE_RATE } from '../sound/stereo'
import { SoundWriter } from './soundTrack'
import { SourceSet } from '../source/sourceSet'

export interface RenderJob {
  edit: Edit
  shape: Shape
  settings: RenderSettings
  /** The bytes of every recording and sound file the edit uses, by id. */
  files: ReadonlyMap<string, Blob>
  /** Where its recordings hold speech; beds are lowered there. */
  speechOf: SpeechOf
}

export interface RenderProgress {
  frame: number
  frames: number
  /** Frames per second of wall time, over the whole job so far. */
  rate: number
  secondsLeft: number
}

export type RenderedFile = Omit<FinishedFile, 'fileName' | 'sizeBytes'>
export type RenderOutcome = { ok: true; file: RenderedFile } | { ok: false; failure: RenderFailure }

/** How far the sound may run ahead of the picture while muxing: keeps interleaving tight and memory small. */
const SOUND_AHEAD_MICROS = MICROS_PER_SECOND / 2

/** The shipped AAC encoder (libavcodec's) gives out 1024 samples of priming before the first sound. */
const AAC_PRIMING_FRAMES = 1024

/** AAC packs 1024 samples a packet; a few more for priming and the padded end. */
const SPARE_SOUND_PACKETS = 8

/** Renders a highlight in one shape into `writable`. Resolves with an outcome; rejects only when `signal` is aborted. */
export async function renderHighlight(wanted: RenderJob, writable: WritableStream<StreamTargetChunk>, onProgress: (progress: RenderProgress) => void, signal: AbortSignal): Promise<RenderOutcome> {
  const job = { ...wanted, edit: editToDraw(wanted.edit, wanted.settings) }
  const sources = await SourceSet.openAll(job.edit, job.files)
  if (!(sources instanceof SourceSet)) return { ok: false, failure: { reason: 'source-missing', fileName: sources.fileName } }
  try {
    const hasSound = soundPlan(job.edit, timeMapOf(job.edit.highlight)).length > 0
    const choice = await chooseEncoders(job.shape, job.settings.videoBitrate, hasSound)
    if (!choice) return { ok: false, failure: { reason: 'encoder-refuses-size', width: job.shape.width, height: job.shape.height } }
    await loadEncoders(choice)
    const levels = hasSound && job.edit.highlight.marks.some((m) => m.kind === 'level') ? await levelTrack(job.edit, job.files, job.speechOf, signal) : []
    return await encode(job, choice, hasSound, sources, (t) => figureAt(levels, t), writable, onProgress, signal)
  } finally {
    await sources.close()
  }
}

async function encode(job: RenderJob, choice: EncoderChoice, hasSound: boolean, sources: SourceSet, figure: Material['figureAt'], writable: WritableStream<StreamTargetChunk>, onProgress: (progress: RenderProgress) => void, signal: AbortSignal): Promise<RenderOutcome> {
  const started = performance.now()
  const { frameRate } = job.settings
  const map = timeMapOf(job.edit.highlight)
  const { lengthMicros } = map
  const frames = frameCount(lengthMicros, frameRate)
  const output = new Output({
    format: choice.container === 'mp4' ? new Mp4OutputFormat({ fastStart: 'reserve' }) : new WebMOutputFormat(),
    target: new StreamTarget(writable, { chunked: true, chunkSize: 4 << 20 }),
  })
  const heard = new SoundSources(job.files)
  let sound: SoundWriter | null = null
  try {
    const picture = addPicture(output, choice, job, frames)
    sound = hasSound ? addSound(output, choice, job, new Mixer(job.edit, job.speechOf, heard), lengthMicros) : null
    await output.start()
    for (let n = 0; n < frames; n++) {
      signal.throwIfAborted()
      await sound?.writeUpTo(frameStartMicros(n, frameRate) + SOUND_AHEAD_MICROS)
      await drawFrame(job, map, picture, sources, { frameOf: sources.frameOf, imageOf: sources.imageOf, figureAt: figure }, n)
      const seconds = (performance.now() - started) / 1000
      onProgress({ frame: n + 1, frames, rate: (n + 1) / seconds, secondsLeft: (seconds / (n + 1)) * (frames - n - 1) })
    }
    await sound?.finish()
    await output.finalize()
    const audioCodec = hasSound ? choice.audio : null
    return { ok: true, file: { container: choice.container, videoCodec: choice.video, audioCodec, shippedAac: hasSound && choice.shippedAac, frames, tookMs: performance.now() - started } }
  } catch (error) {
    await output.cancel().catch(() => {})
    signal.throwIfAborted()
    return { ok: false, failure: failureOf(error, sources) }
  } finally {
    await sound?.close().catch(() => {})
    heard.close()
  }
}

interface PictureTrack {
  composer: Composer
  canvas: PictureCanvas
  track: VideoSampleSource
}

function addPicture(output: Output, choice: EncoderChoice, { shape, settings }: RenderJob, frames: number): PictureTrack {
  const track = new VideoSampleSource({
    codec: choice.video,
    quality: new Quality({ bitrate: settings.videoBitrate }),
    keyFrameInterval: 2,
    ...(choice.videoCodecString !== undefined && { fullCodecString: choice.videoCodecString }),
  })
  output.addVideoTrack(track, { frameRate: framesPerSecond(settings.frameRate), maximumPacketCount: frames })
  return { composer: new Composer(), canvas: new PictureCanvas(shape), track }
}

function addSound(output: Output, choice: EncoderChoice, { settings }: RenderJob, mixer: Mixer, lengthMicros: Micros): SoundWriter {
  const track = new AudioSampleSource({ codec: choice.audio, quality: new Quality({ bitrate: settings.audioBitrate }) })
  const packets = Math.ceil((toSeconds(lengthMicros) * OUTPUT_SAMPLE_RATE) / 1024) + SPARE_SOUND_PACKETS
  output.addAudioTrack(track, { maximumPacketCount: packets })
  return new SoundWriter(mixer.blocks(0), track, choice.audio === 'aac' ? AAC_PRIMING_FRAMES : 0)
}

async function drawFrame({ edit, shape, settings }: RenderJob, map: TimeMap, { composer, canvas, track }: PictureTrack, sources: SourceSet, material: Material, n: number): Promise<void> {
  const start = frameStartMicros(n, settings.frameRate)
  const composition = compose(edit, map, shape, Math.min(start, map.lengthMicros - 1))
  if (!composition) throw new RangeError(`frame ${n} lies outside the highlight`)
  await sources.load(feedsOf(composition), (id) => recordingOf(edit, id).fileName)
  await composer.draw([{ ctx: canvas.ctx, composition }], material)
  const sample = await canvas.toSample(toSeconds(start), toSeconds(frameStartMicros(n + 1, settings.frameRate) - start))
  try {
    await track.add(sample)
  } finally {
    sample.close()
  }
}

/** Why `error` ended the render: a full disk, the recording that was being read when it was thrown, or else a fault of ours. */
function failureOf(error: unknown, { reading }: SourceSet): RenderFailure {
  const detail = error instanceof Error ? error.message : String(error)
  if (error instanceof DOMException && error.name === 'QuotaExceededError') return { reason: 'no-room', neededBytes: null }
  if (reading) return { reason: 'source-unreadable', ...reading, detail }
  return { reason: 'broken', detail }
}
