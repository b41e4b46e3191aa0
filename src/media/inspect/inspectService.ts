import { transfer } from 'comlink'
import type { Size } from '@/core/geometry/rect'
import type { Finding } from '@/core/findings/finding'
import type { KnownBesideFonts } from '@/core/findings/findings'
import type { Edit } from '@/core/model/edit'
import type { Coding } from '@/core/model/outputChoice'
import type { Shape } from '@/core/model/shape'
import type { Level } from '@/core/sound/levels'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Loudness } from '@/core/sound/loudness'
import { lineUp, type LinedUp } from '@/core/sound/lineUp'
import type { Micros } from '@/core/time/micros'
import { chooseEncoders, type EncoderChoice } from '../render/encoders'
import type { Source } from '../source/openSource'
import { OpenSources, type SourceFile } from '../source/openSources'
import type { InspectWorker } from '../workers/inspect.protocol'
import { lookOver } from './lookOver'
import { hearAround, loudnessOf } from './loudnessOf'
import { picturesAt, type PicturePrecision } from './pictures'
import { probe, probeSoundFile, type ProbeResult, type SoundProbeResult } from './probe'
import { soundLevels, type LevelSpan } from './soundLevels'
import { SoundMemory } from './soundMemory'
import { stillOf } from './still'
import { wholeFrame } from './wholeFrame'

/** Pictures wait no longer than this for sound that has to be decoded first. */
const LONGEST_WAIT_MS = 1000

/** What may be asked for next is heard when nothing was asked for this long. */
const CALM_MS = 1000
const AHEAD = 'ahead'

/** What the inspecting worker offers: looking into files without playing or rendering them. */
export class InspectService implements InspectWorker {
  private readonly running = new Map<string, AbortController>()
  private readonly sources = new OpenSources()
  private readonly memory = new SoundMemory()
  /** The last listening; null or a figure when it is over. */
  private listening: Promise<unknown> = Promise.resolve()

  probe(file: Blob): Promise<ProbeResult> {
    return probe(file)
  }

  probeSound(file: Blob): Promise<SoundProbeResult> {
    return probeSoundFile(file)
  }

  pictures(
    channel: string,
    file: SourceFile,
    times: Micros[],
    height: number,
    precision: PicturePrecision,
    onPicture: (index: number, picture: Blob) => void,
  ): Promise<void> {
    return this.exclusively(channel, file, (source, signal) =>
      picturesAt(source, times, height, precision, onPicture, signal, this.turn),
    )
  }

  async frame(file: SourceFile, t: Micros): Promise<ImageBitmap | null> {
    const bitmap = await this.sources.use(file, (source) => wholeFrame(source, t))
    return bitmap && transfer(bitmap, [bitmap])
  }

  levels(channel: string, file: SourceFile, spans: LevelSpan[]): Promise<Level[][]> {
    return this.exclusively(channel, file, async (source, signal) => {
      const levels: Level[][] = []
      for (const span of spans) {
        if (levels.length > 0) await this.turn()
        levels.push(await soundLevels(source, span, signal))
      }
      return levels
    })
  }

  async stop(channels: string[]): Promise<void> {
    for (const channel of channels) this.running.get(channel)?.abort()
  }

  async lineUp(file: SourceFile, span: LevelSpan, other: SourceFile, otherSpan: LevelSpan): Promise<LinedUp | null> {
    const [short = []] = await this.levels('line up', file, [span])
    const [long = []] = await this.levels('line up other', other, [otherSpan])
    return lineUp(
      short.map((l) => l.rms),
      long.map((l) => l.rms),
    )
  }

  encoders(size: Size, bitrate: number, withSound: boolean, coding: Coding): Promise<EncoderChoice | null> {
    return chooseEncoders(size, bitrate, withSound, coding)
  }

  still(edit: Edit, shape: Shape, files: ReadonlyMap<string, Blob>, t: Micros, height: number): Promise<Blob | null> {
    return stillOf(edit, shape, files, t, height)
  }

  loudness(edit: Edit, files: ReadonlyMap<string, Blob>, speechOf: SpeechOf): Promise<Loudness | null> {
    this.running.get(AHEAD)?.abort()
    const listening = this.alone('loudness', (signal) =>
      loudnessOf(edit, files, speechOf, this.sources, this.memory, signal),
    )
    this.listening = listening.catch(() => null)
    void listening
      .then((loudness) => loudness && this.alone(AHEAD, (signal) => this.hearAround(edit, files, signal)))
      .catch(() => {})
    return listening
  }

  private async hearAround(edit: Edit, files: ReadonlyMap<string, Blob>, signal: AbortSignal): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, CALM_MS))
    if (!signal.aborted) await hearAround(edit, files, this.sources, this.memory, signal)
  }

  findings(edit: Edit, known: KnownBesideFonts, files: ReadonlyMap<string, Blob>): Promise<Finding[] | null> {
    return this.alone('findings', (signal) => lookOver(edit, known, files, signal))
  }

  /**
   * Resolves when small pictures and levels may be made: what is found in the sound is wanted first, and is not long
   * in coming.
   */
  private readonly turn = async (): Promise<void> => {
    await Promise.race([this.listening, new Promise((resolve) => setTimeout(resolve, LONGEST_WAIT_MS))])
  }

  /** Runs `work` on an open source when it may be; a later call on the same channel stops it. */
  private exclusively<T>(
    channel: string,
    file: SourceFile,
    work: (source: Source, signal: AbortSignal) => Promise<T>,
  ): Promise<T> {
    return this.alone(channel, async (signal) => {
      await this.turn()
      return this.sources.use(file, (source) => work(source, signal))
    })
  }

  /** Runs `work` until it is done, or until a later call on the same channel stops it. */
  private async alone<T>(channel: string, work: (signal: AbortSignal) => Promise<T>): Promise<T> {
    this.running.get(channel)?.abort()
    const abort = new AbortController()
    this.running.set(channel, abort)
    try {
      return await work(abort.signal)
    } finally {
      if (this.running.get(channel) === abort) this.running.delete(channel)
    }
  }
}
