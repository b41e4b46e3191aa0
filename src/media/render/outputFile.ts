import { AudioSampleSource, Mp4OutputFormat, Output, Quality, StreamTarget, VideoSampleSource, WebMOutputFormat, type StreamTargetChunk, type VideoSample } from 'mediabunny'
import { compose } from '@/core/compose/compose'
import type { Composition } from '@/core/compose/composition'
import type { Edit } from '@/core/model/edit'
import type { RenderSettings, RenderStages } from '@/core/model/render'
import { frameCount, frameStartMicros, framesPerSecond } from '@/core/time/frameRate'
import { toSeconds } from '@/core/time/micros'
import type { TimeMap } from '@/core/time/timeMap'
import { OUTPUT_SAMPLE_RATE } from '../sound/stereo'
import { QUANTIZERS, type EncoderChoice } from './encoders'
import { FileExtras } from './fileExtras'
import type { FrameTime } from './pictureCanvas'
import type { Surface, WantedPicture } from './pictureMaker'
import type { RenderOutcome, WantedFile } from './renderJob'
import type { SoundTarget } from './soundTrack'

/** The shipped AAC encoder (libavcodec's) gives out 1024 samples of priming before the first sound. */
const AAC_PRIMING_FRAMES = 1024

/** Opus packs 960 samples (20 ms) a packet, AAC 1024; a few more for priming and the padded end. */
const LEAST_PACKET_SAMPLES = 960
const SPARE_SOUND_PACKETS = 8

const KEY_FRAME_SECONDS = 2

/** One file being made: its surface, its encoders and its container. Ends in `finish` or `cancel`. */
export class OutputFile {
  private readonly output: Output
  private readonly track: VideoSampleSource
  private readonly extras: FileExtras
  /** Frames that were composed and not drawn yet. */
  private readonly composed = new Map<number, WantedPicture>()
  readonly frames: number
  /** Null for a file without sound. */
  readonly sound: SoundTarget | null

  constructor(readonly wanted: WantedFile, readonly surface: Surface, private readonly choice: EncoderChoice, private readonly edit: Edit, private readonly map: TimeMap, hasSound: boolean, writable: WritableStream<StreamTargetChunk>) {
    const { settings } = wanted
    this.frames = frameCount(map.lengthMicros, settings.frameRate)
    this.output = new Output({
      format: choice.container === 'mp4' ? new Mp4OutputFormat({ fastStart: 'reserve' }) : new WebMOutputFormat(),
      target: new StreamTarget(writable, { chunked: true, chunkSize: 4 << 20 }),
    })
    this.track = new VideoSampleSource({
      codec: choice.video,
      quality: new Quality(pictureQuality(settings, choice)),
      keyFrameInterval: KEY_FRAME_SECONDS,
      ...(choice.videoCodecString !== undefined && { fullCodecString: choice.videoCodecString }),
    })
    this.output.addVideoTrack(this.track, { frameRate: framesPerSecond(settings.frameRate), maximumPacketCount: this.frames })
    this.sound = hasSound ? this.addSound() : null
    this.extras = new FileExtras(settings, this.frames, surface.size)
  }

  private addSound(): SoundTarget {
    const track = new AudioSampleSource({ codec: this.choice.audio, quality: new Quality({ bitrate: this.wanted.settings.audioBitrate }) })
    const packets = Math.ceil((toSeconds(this.map.lengthMicros) * OUTPUT_SAMPLE_RATE) / LEAST_PACKET_SAMPLES) + SPARE_SOUND_PACKETS
    this.output.addAudioTrack(track, { maximumPacketCount: packets })
    return { track, primingFrames: this.choice.audio === 'aac' ? AAC_PRIMING_FRAMES : 0 }
  }

  start(): Promise<void> {
    return this.output.start()
  }

  /** What frame `n` shows, and where it is drawn. */
  picture(n: number): WantedPicture {
    const known = this.composed.get(n)
    if (known) return known
    const start = frameStartMicros(n, this.wanted.settings.frameRate)
    const composition: Composition | null = compose(this.edit, this.map, this.wanted.shape, Math.min(start, this.map.lengthMicros - 1))
    if (!composition) throw new RangeError(`frame ${n} lies outside the highlight`)
    const picture = { surface: this.surface, composition }
    this.composed.set(n, picture)
    return picture
  }

  /** Takes what was drawn as frame `n`. */
  async add(n: number, sampleAt: (time: FrameTime) => Promise<VideoSample>): Promise<void> {
    const { frameRate } = this.wanted.settings
    const start = frameStartMicros(n, frameRate)
    const sample = await sampleAt({ timestamp: toSeconds(start), duration: toSeconds(frameStartMicros(n + 1, frameRate) - start) })
    try {
      await this.track.add(sample)
      await this.extras.take(n, sample)
    } finally {
      sample.close()
    }
    this.composed.delete(n)
  }

  async finish(tookMs: number, stages: RenderStages): Promise<RenderOutcome> {
    await this.output.finalize()
    const { container, video, audio, shippedAac } = this.choice
    const hasSound = this.sound !== null
    return { ok: true, file: { container, videoCodec: video, audioCodec: hasSound ? audio : null, shippedAac: hasSound && shippedAac, frames: this.frames, tookMs, stages }, extras: this.extras.made() }
  }

  async cancel(): Promise<void> {
    await this.output.cancel().catch(() => {})
  }
}

/** A quality that is held where the encoder can, else a bitrate. */
function pictureQuality({ constantQuality, videoBitrate }: RenderSettings, { video }: EncoderChoice): { bitrate: number; quantizer?: number } {
  const quantizer = constantQuality === null ? undefined : QUANTIZERS[video]?.[constantQuality]
  return { bitrate: videoBitrate, ...(quantizer !== undefined && { quantizer }) }
}
