import { feedsOf, momentKey, type Feed } from '@/core/compose/composition'
import { recordingOf } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { RenderFailure, RenderStages } from '@/core/model/render'
import { keepsForLater, mostEncoding } from '@/core/output/encoderTurns'
import { editToDraw, sizeOfFile } from '@/core/output/renderSettings'
import { figureAt } from '@/core/sound/levelFigure'
import { soundPlan } from '@/core/sound/soundPlan'
import { frameStartMicros } from '@/core/time/frameRate'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { explain, quietly } from '@/diagnostics/note'
import type { Material } from '../draw/composer'
import { atLoudness } from '../sound/atLoudness'
import { levelTrack } from '../sound/levelTrack'
import { Mixer, SoundSources } from '../sound/mixer'
import { claim } from '../ranks/turns'
import { SourceSet } from '../source/sourceSet'
import { Collecting } from './collecting'
import { chooseEncoders, loadEncoders } from './encoders'
import { OutputFile } from './outputFile'
import { PictureMaker, type WantedPicture } from './pictureMaker'
import type { RenderHost, RenderJob, RenderOutcome } from './renderJob'
import { SoundWriter } from './soundTrack'

/** So many frames are composed before they are drawn: what none of them shows of a recording need not be decoded. */
const COMPOSED_AHEAD = 24

/** Encoders work beside each other, but not all of many. */
const MAX_ENCODING = mostEncoding(navigator.hardwareConcurrency)

/** How far the sound may run ahead of the picture while muxing: keeps interleaving tight and memory small. */
const SOUND_AHEAD_MICROS = MICROS_PER_SECOND / 2

/** A render is claimed anew with every frame, for this long. */
const CLAIM_MS = 250

export type Outcomes = Map<RenderId, RenderOutcome>

/**
 * Renders a highlight into all the files of a job, decoding its recordings once. What befalls one file leaves the
 * others. Resolves with an outcome for each that was not dropped; rejects only when the host's signal is aborted.
 */
export async function renderTogether(job: RenderJob, host: RenderHost): Promise<Outcomes> {
  const [first] = job.wanted
  if (!first) return new Map()
  const edit = editToDraw(job.edit, first.settings)
  const sources = await SourceSet.openAll(edit, job.files)
  if (!(sources instanceof SourceSet))
    return failed(job.wanted, { reason: 'source-missing', fileName: sources.fileName })
  try {
    return await new Together({ ...job, edit }, host, sources, await PictureMaker.start(job.backEnd)).run()
  } finally {
    await sources.close()
  }
}

function failed(wanted: readonly { id: RenderId }[], failure: RenderFailure): Outcomes {
  return new Map(wanted.map(({ id }) => [id, { ok: false, failure }]))
}

class Together {
  private readonly outcomes: Outcomes = new Map()
  private readonly started = performance.now()
  private readonly stages: RenderStages = { decodeMs: 0, drawMs: 0, encodeMs: 0 }
  private readonly collecting = new Collecting()
  private working: OutputFile[] = []

  constructor(
    private readonly job: RenderJob,
    private readonly host: RenderHost,
    private readonly sources: SourceSet,
    private readonly pictures: PictureMaker,
  ) {}

  async run(): Promise<Outcomes> {
    const { edit, files, speechOf } = this.job
    const { signal } = this.host
    const hasSound = soundPlan(edit, timeMapOf(edit.highlight)).length > 0
    const heard = new SoundSources(files)
    let sound: SoundWriter | null = null
    try {
      await this.begin(hasSound)
      const levels =
        hasSound && edit.highlight.marks.some((m) => m.kind === 'level')
          ? await levelTrack(edit, files, speechOf, signal)
          : []
      const loudness = this.job.wanted[0]?.settings.loudness ?? null
      const mixed = () => new Mixer(edit, speechOf, heard).blocks(0)
      if (hasSound) sound = new SoundWriter(loudness === null ? mixed() : atLoudness(mixed, loudness, signal))
      for (const { sound: target } of this.working) if (target) await sound?.add(target)
      await this.draw(sound, (t) => figureAt(levels, t))
      await sound?.finish()
      const took = performance.now() - this.started
      const pixels = this.working.reduce((sum, file) => sum + pixelsOf(file), 0)
      for (const file of this.working)
        await this.attempt(
          file,
          async () =>
            void this.outcomes.set(file.wanted.id, await file.finish((took * pixelsOf(file)) / pixels, this.stages)),
        )
    } catch (error) {
      signal.throwIfAborted()
      for (const { wanted } of this.working)
        this.outcomes.set(wanted.id, { ok: false, failure: failureOf(error, this.sources) })
    } finally {
      for (const file of this.working) if (this.outcomes.get(file.wanted.id)?.ok !== true) await file.cancel()
      await sound?.close().catch(quietly('a render'))
      heard.close()
    }
    return this.outcomes
  }

  private async begin(hasSound: boolean): Promise<void> {
    const map = timeMapOf(this.job.edit.highlight)
    for (const wanted of this.job.wanted) {
      const size = sizeOfFile(wanted)
      const choice = await chooseEncoders(size, wanted.settings.videoBitrate, hasSound, wanted.settings.coding)
      if (!choice) {
        this.outcomes.set(wanted.id, { ok: false, failure: { reason: 'encoder-refuses-size', ...size } })
        continue
      }
      await loadEncoders(choice)
      const plan = { wanted, surface: this.pictures.surface(size), choice, edit: this.job.edit, map, hasSound }
      const file = await OutputFile.open(plan, this.host.writableOf(wanted.id), this.sources.recordings)
      this.working.push(file)
      await this.attempt(file, () => file.start())
    }
  }

  private async draw(sound: SoundWriter | null, figure: Material['figureAt']): Promise<void> {
    const { edit } = this.job
    const frames = this.working[0]?.frames ?? 0
    const rate = this.job.wanted[0]?.settings.frameRate
    let told = 0
    for (let n = 0; n < frames && rate; n++) {
      await this.host.mayGoOn()
      this.host.signal.throwIfAborted()
      claim('render', CLAIM_MS)
      for (const file of this.working.filter((f) => this.host.isDropped(f.wanted.id))) await this.drop(file, sound)
      if (this.working.length === 0) return
      await sound?.writeUpTo(frameStartMicros(n, rate) + SOUND_AHEAD_MICROS)
      for (; told < Math.min(frames, n + COMPOSED_AHEAD); told++) this.sources.expect(feedsAt(this.working, told))
      const drawing = this.working.flatMap((file) => asDrawn(file, n))
      await this.timed(
        'decodeMs',
        this.sources.load(feedsAt(this.working, n), (id) => recordingOf(edit, id).fileName),
      )
      const drawn = await this.timed(
        'drawMs',
        this.pictures.draw(
          drawing.map((d) => d.picture),
          { frameOf: this.sources.frameOf, imageOf: this.sources.imageOf, figureAt: figure },
        ),
      )
      const takingOver = this.working.filter((file) => !file.picture(n))
      const keeps = (file: OutputFile) =>
        keepsForLater(this.working.indexOf(file), this.working.length, n, MAX_ENCODING)
      await this.timed(
        'encodeMs',
        Promise.all([
          ...drawing.map(({ file }, i) => this.attempt(file, () => file.add(n, at(drawn, i), keeps(file)), sound)),
          ...takingOver.map((file) => this.attempt(file, () => file.takeOver(n), sound)),
        ]),
      )
      const seconds = (performance.now() - this.started) / 1000
      this.collecting.step()
      this.host.onProgress({
        frame: n + 1,
        frames,
        rate: (n + 1) / seconds,
        secondsLeft: (seconds / (n + 1)) * (frames - n - 1),
      })
    }
  }

  private async timed<T>(stage: keyof RenderStages, work: Promise<T>): Promise<T> {
    const from = performance.now()
    const done = await work
    this.stages[stage] += performance.now() - from
    return done
  }

  /** Does something for one file; when that fails, the file ends with its reason and the others go on. */
  private async attempt(file: OutputFile, work: () => Promise<void>, sound: SoundWriter | null = null): Promise<void> {
    try {
      await work()
    } catch (error) {
      this.outcomes.set(file.wanted.id, { ok: false, failure: failureOf(error, this.sources) })
      await this.drop(file, sound)
    }
  }

  private async drop(file: OutputFile, sound: SoundWriter | null): Promise<void> {
    this.working = this.working.filter((f) => f !== file)
    if (file.sound) await sound?.drop(file.sound)
    await file.cancel()
    this.pictures.giveBack(file.surface)
  }
}

/** A file with what is to be drawn as its frame `n`; nothing where that is taken over. */
function asDrawn(file: OutputFile, n: number): { file: OutputFile; picture: WantedPicture }[] {
  const picture = file.picture(n)
  return picture ? [{ file, picture }] : []
}

/** What is drawn as frame `n` of all files together, each moment once. */
function feedsAt(files: readonly OutputFile[], n: number): Feed[] {
  const feeds = files.flatMap((file) => asDrawn(file, n)).flatMap(({ picture }) => feedsOf(picture.composition))
  return [...new Map(feeds.map((feed) => [momentKey(feed), feed])).values()]
}

function at<T>(all: readonly T[], i: number): T {
  const output = all[i]
  if (output === undefined) throw new RangeError(`there is no ${i}`)
  return output
}

function pixelsOf({ wanted }: OutputFile): number {
  const { width, height } = sizeOfFile(wanted)
  return width * height
}

/**
 * Why `error` ended a file: a full disk, the recording that was being read when it was thrown, or else a fault of
 * ours.
 */
function failureOf(error: unknown, { reading }: SourceSet): RenderFailure {
  const detail = explain('a render', error)
  if (error instanceof DOMException && error.name === 'QuotaExceededError')
    return { reason: 'no-room', neededBytes: null }
  if (reading) return { reason: 'source-unreadable', ...reading, detail }
  return { reason: 'broken', detail }
}
