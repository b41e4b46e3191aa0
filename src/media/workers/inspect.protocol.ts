import type { Size } from '@/core/geometry/rect'
import type { Finding } from '@/core/findings/finding'
import type { MeasurementsBesideFonts } from '@/core/findings/findings'
import type { Edit } from '@/core/model/edit'
import type { Coding } from '@/core/model/outputChoice'
import type { Shape } from '@/core/model/shape'
import type { Level } from '@/core/sound/levels'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Loudness } from '@/core/sound/loudness'
import type { LinedUp } from '@/core/sound/lineUp'
import type { Micros } from '@/core/time/micros'
import type { PicturePrecision } from '../inspect/pictures'
import type { ProbeResult, SoundProbeResult } from '../inspect/probe'
import type { EncoderChoice } from '../render/encoders'
import type { LevelSpan } from '../inspect/soundLevels'
import type { SourceFile } from '../source/openSources'

/** Whether a file can be used, and what a render can be coded with. */
export interface FileInspector {
  probe(file: Blob): Promise<ProbeResult>
  /** The file with one clock throughout, where it is one whose clock begins anew; see media/inspect/mendClock. */
  mendClock(file: Blob): Promise<Blob | null>
  probeSound(file: Blob): Promise<SoundProbeResult>
  /** What a render of this size would be coded with; null when this browser cannot. */
  encoders(size: Size, bitrate: number, withSound: boolean, coding: Coding): Promise<EncoderChoice | null>
}

export interface PictureInspector {
  /**
   * Small pictures at rising times; see media/inspect/pictures. Ends early when a later call uses the same `channel`.
   */
  pictures(
    channel: string,
    source: SourceFile,
    times: Micros[],
    height: number,
    precision: PicturePrecision,
    onPicture: (index: number, picture: Blob) => void,
  ): Promise<void>
  /** The frame on screen at a recording time in all its pixels, for the caller to close; null when there is none. */
  frame(source: SourceFile, t: Micros): Promise<ImageBitmap | null>
  /** One frame of a highlight at output time `t`, `height` px high, as WebP; null when a recording is missing. */
  still(edit: Edit, shape: Shape, files: ReadonlyMap<string, Blob>, t: Micros, height: number): Promise<Blob | null>
}

export interface SoundInspector {
  /**
   * Sound levels of several spans; see media/inspect/soundLevels. Ends early when a later call uses the same
   * `channel`.
   */
  levels(channel: string, source: SourceFile, spans: LevelSpan[]): Promise<Level[][]>
  /** Where a span of one file's sound lies in another file, in steps of the span; see core/sound/lineUp. */
  lineUp(source: SourceFile, span: LevelSpan, other: SourceFile, otherSpan: LevelSpan): Promise<LinedUp | null>
  /**
   * How loud what is heard of an edit is; null when a later call has stopped it. Rejects when a file cannot be read.
   */
  loudness(edit: Edit, files: ReadonlyMap<string, Blob>, speechOf: SpeechOf): Promise<Loudness | null>
}

export interface FaultInspector {
  /**
   * What is wrong with an edit, worst first; see core/findings. `files`: the bytes of fonts that came along. Null
   * when a later call has stopped it.
   */
  findings(edit: Edit, known: MeasurementsBesideFonts, files: ReadonlyMap<string, Blob>): Promise<Finding[] | null>
}

/** The worker that looks into files: four inspectors that share what is open and take turns. */
export interface InspectWorker extends FileInspector, PictureInspector, SoundInspector, FaultInspector {
  /** Ends what was asked for on channels and is of no use any more. */
  stop(channels: string[]): Promise<void>
}
