import {
  EncodedAudioPacketSource,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  VideoSampleSource,
  WebMOutputFormat,
  type StreamTargetChunk,
  type VideoSample,
} from 'mediabunny'
import { compose } from '@/core/compose/compose'
import type { Composition } from '@/core/compose/composition'
import type { Edit } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import type { RenderSettings, RenderStages } from '@/core/model/render'
import { sizeOfFile } from '@/core/output/renderSettings'
import { frameCount, frameStartMicros, framesPerSecond } from '@/core/time/frameRate'
import { toSeconds } from '@/core/time/micros'
import type { TimeMap } from '@/core/time/timeMap'
import { nullOnError, quietly } from '@/diagnostics/note'
import { OUTPUT_SAMPLE_RATE } from '../sound/stereo'
import type { Source } from '../source/openSource'
import { copiesFor, packetsOf, type Copied, type Copies } from './copies'
import { QUANTIZERS, type EncoderChoice } from './encoders'
import { FileExtras } from './fileExtras'
import type { FrameTime } from './pictureCanvas'
import type { Surface, WantedPicture } from './pictureMaker'
import type { RenderOutcome, WantedFile } from './renderJob'
import type { SoundTarget } from './soundTrack'
import { SplicedTrack } from './splicedTrack'

/** Opus packs 960 samples (20 ms) a packet, AAC 1024; a few more for priming and the padded end. */
const MIN_PACKET_SAMPLES = 960
const SPARE_SOUND_PACKETS = 8

const KEY_FRAME_SECONDS = 2

/** What goes into a file, where it is drawn, and how it is coded. */
export interface FilePlan {
  wanted: WantedFile
  surface: Surface
  choice: EncoderChoice
  edit: Edit
  map: TimeMap
  hasSound: boolean
}

/** Coded again, or taken over in stretches and coded between. */
type PictureTrack =
  { kind: 'coded'; source: VideoSampleSource } | { kind: 'spliced'; spliced: SplicedTrack; runs: readonly Copied[] }

/** One file being made: its surface, its encoders and its container. Ends in `finish` or `cancel`. */
export class OutputFile {
  private readonly output: Output
  private readonly extras: FileExtras
  /** Frames that were composed and not drawn yet. */
  private readonly composed = new Map<number, WantedPicture>()
  /** Frames that were drawn and wait for the encoder's turn. */
  private readonly kept: { n: number; sample: VideoSample }[] = []
  /** Why no more sound can be written; told with the next frame, or at the end. */
  private failure: unknown = null
  /** The packets of the stretch that is being taken over. */
  private copying: ReturnType<typeof packetsOf> | null = null
  readonly frames: number
  /** Null for a file without sound. */
  readonly sound: SoundTarget | null

  /** A file whose pictures come from `sources` as they are coded where nothing is done to them. */
  static async open(
    plan: FilePlan,
    writable: WritableStream<StreamTargetChunk>,
    sources: ReadonlyMap<RecordingId, Source>,
  ): Promise<OutputFile> {
    const copies = await copiesOf(plan, sources)
    const spliced =
      copies &&
      (await SplicedTrack.start(encoderConfig(plan), Math.round(KEY_FRAME_SECONDS * rateOf(plan)), copies.config))
    return new OutputFile(
      plan,
      writable,
      spliced && copies ? { kind: 'spliced', spliced, runs: copies.runs } : { kind: 'coded', source: codedTrack(plan) },
    )
  }

  private constructor(
    private readonly plan: FilePlan,
    writable: WritableStream<StreamTargetChunk>,
    private readonly track: PictureTrack,
  ) {
    const { wanted, choice, surface, map, hasSound } = plan
    this.frames = framesOf(plan)
    this.output = new Output({
      format: choice.container === 'mp4' ? new Mp4OutputFormat({ fastStart: 'reserve' }) : new WebMOutputFormat(),
      target: new StreamTarget(writable),
    })
    this.output.addVideoTrack(track.kind === 'coded' ? track.source : track.spliced.source, {
      frameRate: rateOf(plan),
      maximumPacketCount: this.frames,
    })
    this.sound = hasSound ? this.addSound(map) : null
    this.extras = new FileExtras(wanted.settings, this.frames, surface.size)
  }

  private addSound(map: TimeMap): SoundTarget {
    const { choice, wanted } = this.plan
    const track = new EncodedAudioPacketSource(choice.audio)
    const packets =
      Math.ceil((toSeconds(map.lengthMicros) * OUTPUT_SAMPLE_RATE) / MIN_PACKET_SAMPLES) + SPARE_SOUND_PACKETS
    this.output.addAudioTrack(track, { maximumPacketCount: packets })
    return {
      coding: { codec: choice.audio, bitrate: wanted.settings.audioBitrate },
      take: async (packet, meta) => {
        try {
          if (this.failure === null) await track.add(packet, meta)
        } catch (error) {
          // A file that has ended throws at once instead.
          this.failure = error
        }
      },
    }
  }

  get wanted(): WantedFile {
    return this.plan.wanted
  }

  get surface(): Surface {
    return this.plan.surface
  }

  start(): Promise<void> {
    return this.output.start()
  }

  /** What frame `n` shows, and where it is drawn; null where it is taken over from a recording. */
  picture(n: number): WantedPicture | null {
    if (this.runAt(n)) return null
    const cached = this.composed.get(n)
    if (cached) return cached
    const picture = { surface: this.surface, composition: compositionOf(this.plan, n) }
    this.composed.set(n, picture)
    return picture
  }

  /** Takes what was drawn as frame `n`; codes it together with what was kept, or keeps it too. */
  async add(n: number, sampleAt: (time: FrameTime) => Promise<VideoSample>, keep: boolean): Promise<void> {
    this.check()
    this.kept.push({ n, sample: await sampleAt(timeOf(this.plan, n)) })
    this.composed.delete(n)
    if (!keep) await this.codeKept()
  }

  private async codeKept(): Promise<void> {
    for (let first = this.kept.shift(); first; first = this.kept.shift()) {
      const { n, sample } = first
      try {
        await (this.track.kind === 'coded' ? this.track.source : this.track.spliced).add(sample)
        await this.extras.take(n, sample)
      } finally {
        sample.close()
      }
    }
  }

  /** Takes over frame `n`, or another of its stretch that is decoded in its place. */
  async takeOver(n: number): Promise<void> {
    this.check()
    const run = this.runAt(n)
    if (!run || this.track.kind !== 'spliced') throw new RangeError(`frame ${n} is not taken over`)
    await this.codeKept()
    this.copying ??= packetsOf(run)
    const { value } = await this.copying.next()
    // The recording was looked through before: it has changed since.
    if (!value) throw new RangeError(`no packet for frame ${n}`)
    await this.track.spliced.copy(value.packet, timeOf(this.plan, value.frame))
    if (n < run.toFrame - 1) return
    await this.copying.return(undefined)
    this.copying = null
  }

  async finish(tookMs: number, stages: RenderStages): Promise<RenderOutcome> {
    this.check()
    await this.codeKept()
    if (this.track.kind === 'spliced') await this.track.spliced.end()
    await this.output.finalize()
    const { container, video, audio, shippedAac } = this.plan.choice
    const hasSound = this.sound !== null
    return {
      ok: true,
      file: {
        container,
        videoCodec: video,
        audioCodec: hasSound ? audio : null,
        shippedAac: hasSound && shippedAac,
        frames: this.frames,
        framesTakenOver: this.takenOver,
        tookMs,
        stages,
      },
      extras: this.extras.made(),
    }
  }

  async cancel(): Promise<void> {
    for (const { sample } of this.kept.splice(0)) sample.close()
    await this.copying?.return(undefined)
    if (this.track.kind === 'spliced') this.track.spliced.close()
    await this.output.cancel().catch(quietly('writing a file'))
  }

  private check(): void {
    if (this.failure !== null) throw this.failure
  }

  private get takenOver(): number {
    return this.track.kind === 'spliced' ? this.track.runs.reduce((sum, run) => sum + run.frames.length, 0) : 0
  }

  private runAt(n: number): Copied | undefined {
    return this.track.kind === 'spliced'
      ? this.track.runs.find((run) => n >= run.fromFrame && n < run.toFrame)
      : undefined
  }
}

const framesOf = ({ map, wanted }: FilePlan) => frameCount(map.lengthMicros, wanted.settings.frameRate)
const rateOf = ({ wanted }: FilePlan) => framesPerSecond(wanted.settings.frameRate)

function timeOf({ wanted }: FilePlan, n: number): FrameTime {
  const { frameRate } = wanted.settings
  const start = frameStartMicros(n, frameRate)
  return { timestamp: toSeconds(start), duration: toSeconds(frameStartMicros(n + 1, frameRate) - start) }
}

function compositionOf({ edit, map, wanted }: FilePlan, n: number): Composition {
  const start = frameStartMicros(n, wanted.settings.frameRate)
  const composition = compose(edit, map, wanted.shape, Math.min(start, map.lengthMicros - 1))
  if (!composition) throw new RangeError(`frame ${n} lies outside the highlight`)
  return composition
}

/** Stills and loops are made of drawn frames, and of files of another size than their shape all are drawn. */
async function copiesOf(plan: FilePlan, sources: ReadonlyMap<RecordingId, Source>): Promise<Copies | null> {
  const { size, poster, loop, videoBitrate } = plan.wanted.settings
  if (plan.choice.video !== 'avc' || plan.choice.container !== 'mp4' || size !== null || poster || loop) return null
  // A recording that cannot be looked through is told of when it is decoded.
  return copiesFor(
    {
      frames: framesOf(plan),
      size: sizeOfFile(plan.wanted),
      compositionOf: (n) => compositionOf(plan, n),
      mostBitrate: videoBitrate,
    },
    sources,
  ).catch(nullOnError('writing a file'))
}

function codedTrack(plan: FilePlan): VideoSampleSource {
  const { choice, wanted } = plan
  return new VideoSampleSource({
    codec: choice.video,
    quality: new Quality(pictureQuality(wanted.settings, choice)),
    keyFrameInterval: KEY_FRAME_SECONDS,
    ...(choice.videoCodecString !== undefined && { fullCodecString: choice.videoCodecString }),
  })
}

function encoderConfig({ wanted, choice }: FilePlan): VideoEncoderConfig {
  return {
    codec: choice.videoCodecString ?? '',
    ...sizeOfFile(wanted),
    bitrate: wanted.settings.videoBitrate,
    alpha: 'discard',
    avc: { format: 'avc' },
  }
}

/** A quality that is held where the encoder can, else a bitrate. */
function pictureQuality(
  { constantQuality, videoBitrate }: RenderSettings,
  { video }: EncoderChoice,
): { bitrate: number; quantizer?: number } {
  const quantizer = constantQuality === null ? undefined : QUANTIZERS[video]?.[constantQuality]
  return { bitrate: videoBitrate, ...(quantizer !== undefined && { quantizer }) }
}
