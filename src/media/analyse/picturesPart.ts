import { EncodedPacketSink, type VideoSample } from 'mediabunny'
import { PART_MICROS, type PicturesPart } from '@/core/detect/analysis'
import { isCut, motionBetween, type FrameSignature } from '@/core/detect/frameSignature'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { CropReader, HALVED_FROM, type DrawCrop } from '../draw/cropReader'
import { smallPicture } from '../draw/smallPicture'
import type { Turns } from '../ranks/turns'
import { framesAt } from '../source/framesAt'
import type { Source } from '../source/openSource'
import { CutFinder } from './cutFinder'

/** Key frames closer together than this are passed over: some recorders write nothing else. */
const MIN_GAP_MICROS = MICROS_PER_SECOND / 2

/** A picture is kept for the strip this often at most. */
const PICTURE_EVERY_MICROS = 4 * MICROS_PER_SECOND
const PICTURE_HEIGHT = 72

/** Between two key frames that differ, frames are decoded until the cut is found; in one part this often at most. */
const MAX_SEARCHES = 3

/**
 * A key frame this much earlier than the usual distance was put there by the encoder because the picture changed: it
 * is the cut.
 */
const EARLY_SHARE = 0.9

interface SignatureSample {
  micros: Micros
  signature: FrameSignature
}

/**
 * Looks through recordings part by part, from their key frames. Parts of one recording are best taken in order: each
 * remembers the last frame of the one before.
 */
export class PictureAnalyst {
  private readonly reader = new CropReader()
  private readonly cutFinder: CutFinder
  private last: { part: number; seen: SignatureSample } | null = null

  constructor(
    private readonly source: Source,
    private readonly durationMicros: Micros,
    private readonly turns: Turns,
  ) {
    this.cutFinder = new CutFinder(source)
  }

  /** Throws when frames cannot be decoded; stops with an AbortError when `signal` says so. */
  async part(index: number, signal: AbortSignal): Promise<PicturesPart> {
    const times = await this.keyFrames(index * PART_MICROS, Math.min(this.durationMicros, (index + 1) * PART_MICROS))
    const part: PicturesPart = { pictures: [], motion: [], cuts: [] }
    let before = this.last?.part === index - 1 ? this.last.seen : null
    const changed: [SignatureSample, SignatureSample][] = []
    for await (const sample of framesAt(this.source.video, times)) {
      if (!sample) continue
      const micros = this.source.toRecording(sample.timestamp)
      try {
        await this.turns.next(signal)
        const seen = { micros, signature: await this.cutFinder.signatureOf(sample) }
        const lastPicture = part.pictures.at(-1)
        if (!lastPicture || micros - lastPicture.micros >= PICTURE_EVERY_MICROS)
          part.pictures.push({
            micros,
            picture: await smallPicture(sample, await this.whole(sample), PICTURE_HEIGHT),
          })
        if (before) {
          // For as long as it took: what changes in ten seconds is not ten times the motion of what changes in one.
          const seconds = Math.max(0.5, (micros - before.micros) / MICROS_PER_SECOND)
          part.motion.push({ micros, amount: motionBetween(before.signature, seen.signature) / Math.sqrt(seconds) })
          if (isCut(before.signature, seen.signature)) changed.push([before, seen])
        }
        before = seen
      } finally {
        sample.close()
      }
    }
    if (before) this.last = { part: index, seen: before }
    part.cuts = await this.cutsBetween(changed, usualGap(times.map((t) => this.source.toRecording(t))), signal)
    return part
  }

  /** Container times of key frames from one recording time up to another. */
  private async keyFrames(from: Micros, to: Micros): Promise<number[]> {
    const packets = new EncodedPacketSink(this.source.video)
    const times: number[] = []
    const options = { metadataOnly: true }
    let packet =
      (await packets.getKeyPacket(this.source.toContainer(from), options)) ?? (await packets.getFirstPacket(options))
    while (packet && this.source.toRecording(packet.timestamp) < to) {
      const micros = this.source.toRecording(packet.timestamp)
      const last = times.at(-1)
      if (micros >= from && (last === undefined || micros - this.source.toRecording(last) >= MIN_GAP_MICROS))
        times.push(packet.timestamp)
      packet = await packets.getNextKeyPacket(packet, options)
    }
    return times
  }

  private async cutsBetween(
    changed: readonly [SignatureSample, SignatureSample][],
    gap: Micros,
    signal: AbortSignal,
  ): Promise<Micros[]> {
    const cuts: Micros[] = []
    let searches = 0
    for (const [before, after] of changed) {
      if (after.micros - before.micros < gap * EARLY_SHARE) cuts.push(after.micros)
      else if (searches++ < MAX_SEARCHES) {
        const found = await this.cutFinder.between(before.micros, after.micros, signal, 'first')
        cuts.push(...found.map(({ micros }) => micros))
      }
    }
    return cuts
  }

  private whole(sample: VideoSample): Promise<DrawCrop> {
    this.reader.begin()
    return this.reader.readWhole(sample, PICTURE_HEIGHT <= HALVED_FROM * sample.displayHeight)
  }
}

/** The longest distance between neighbouring key frames: what an encoder keeps to where nothing happens. */
function usualGap(times: readonly Micros[]): Micros {
  return Math.max(0, ...times.slice(1).map((t, i) => t - (times[i] ?? t)))
}
