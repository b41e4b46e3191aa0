import { EncodedPacketSink, type EncodedPacket } from 'mediabunny'
import { bringsOtherSets, readAvcConfig, type AvcConfig } from '@/core/coded/avcConfig'
import type { Composition } from '@/core/compose/composition'
import type { Size } from '@/core/geometry/rect'
import type { RecordingId } from '@/core/model/ids'
import {
  copiedRuns,
  untouchedStretches,
  type CodedFrame,
  type CopiedRun,
  type UntouchedStretch,
} from '@/core/output/untouched'
import { toSeconds, type Micros } from '@/core/time/micros'
import { avcDescription } from '../source/avcDescription'
import { FRAME_TOLERANCE_MICROS } from '../source/frameCursor'
import type { Source } from '../source/openSource'

/** Coded frames are looked at so far beyond what is shown: those shown last may be decoded after later ones. */
const BEYOND_SECONDS = 1

/** A stretch of a recording that goes into a file as it is coded. */
export interface Copied extends CopiedRun {
  source: Source
  /** Recording time of the frame whose key frame its packets are counted from. */
  countedFrom: Micros
}

/** What of a file is taken over, and how it is coded. */
export interface Copies {
  config: AvcConfig
  runs: readonly Copied[]
}

/** A file as far as it matters here. `mostBitrate`: bits a second that copies may have, on average. */
export interface CopyingFile {
  frames: number
  size: Size
  compositionOf: (n: number) => Composition
  mostBitrate: number
}

interface Copyable {
  source: Source
  config: AvcConfig
  /** To tell whether two are coded alike. */
  description: string
}

/**
 * What of a file can be taken over from its recordings without coding it again: whole frames of theirs with nothing
 * over them, as many to the second, in H.264 and in the colours that files are written in. Null where there is
 * nothing.
 */
export async function copiesFor(file: CopyingFile, sources: ReadonlyMap<RecordingId, Source>): Promise<Copies | null> {
  const copyable = new Map<RecordingId, Copyable>()
  for (const [id, source] of sources) {
    const found = await copyableOf(source, file.size)
    if (found) copyable.set(id, found)
  }
  if (copyable.size === 0) return null
  let alike: Copyable | null = null
  const runs: Copied[] = []
  for (const stretch of untouchedStretches(file.frames, file.compositionOf, (id) => copyable.has(id))) {
    const recording = copyable.get(stretch.recordingId)
    // A track tells of one coding besides our own.
    if (!recording || (alike && alike.description !== recording.description)) continue
    const found = await runsIn(stretch, recording, file.mostBitrate)
    if (found.length > 0) alike ??= recording
    runs.push(...found)
  }
  return alike && { config: alike.config, runs }
}

async function copyableOf(source: Source, { width, height }: Size): Promise<Copyable | null> {
  const { video } = source
  const sizes = [
    await video.getDisplayWidth(),
    await video.getSquarePixelWidth(),
    await video.getDisplayHeight(),
    await video.getSquarePixelHeight(),
  ]
  if (
    sizes.some((side, i) => side !== (i < 2 ? width : height)) ||
    (await video.getRotation()) !== 0 ||
    (await video.getFlip())
  )
    return null
  const { primaries, transfer, matrix, fullRange } = await video.getColorSpace()
  if (primaries !== 'bt709' || transfer !== 'bt709' || matrix !== 'bt709' || fullRange !== false) return null
  const description = await avcDescription(video)
  const config = description && readAvcConfig(description)
  return config && { source, config, description: description.join() }
}

async function runsIn(
  { fromFrame, shown }: UntouchedStretch,
  { source, config }: Copyable,
  mostBitrate: number,
): Promise<Copied[]> {
  const [first = 0] = shown
  const last = shown.at(-1) ?? first
  const coded: (CodedFrame & { bytes: number })[] = []
  for await (const { timestamp, type, byteLength } of packetsFrom(source, first, true)) {
    if (timestamp > source.toContainer(last) + BEYOND_SECONDS) break
    if (type === 'key' && (await changesCoding(source, timestamp, config))) break
    coded.push({ micros: source.toRecording(timestamp), key: type === 'key', bytes: byteLength })
  }
  const isSmall = ({ first: from, frames }: CopiedRun) => {
    const part = coded.slice(from, from + frames.length)
    const times = part.map((c) => c.micros).sort((a, b) => a - b)
    return (
      part.reduce((sum, c) => sum + c.bytes * 8, 0) <= mostBitrate * toSeconds((times.at(-1) ?? 0) - (times[0] ?? 0))
    )
  }
  return copiedRuns(shown, fromFrame, coded, FRAME_TOLERANCE_MICROS)
    .filter(isSmall)
    .map((run) => ({ ...run, source, countedFrom: first }))
}

/** Whether a recording is coded another way from the key frame at `seconds` on, container time. */
async function changesCoding({ video }: Source, seconds: number, config: AvcConfig): Promise<boolean> {
  const packet = await new EncodedPacketSink(video).getKeyPacket(seconds)
  return packet !== null && bringsOtherSets(packet.data, config)
}

/** The packets of a copied stretch in the order of decoding, each with the frame of output that it shows. */
export async function* packetsOf({
  source,
  countedFrom,
  first,
  frames,
}: Copied): AsyncGenerator<{ packet: EncodedPacket; frame: number }> {
  let n = -1
  for await (const packet of packetsFrom(source, countedFrom, false)) {
    const frame = frames[++n - first]
    if (frame !== undefined) yield { packet, frame }
    if (n >= first + frames.length - 1) return
  }
}

async function* packetsFrom(
  { video, toContainer }: Source,
  t: Micros,
  metadataOnly: boolean,
): AsyncGenerator<EncodedPacket> {
  const sink = new EncodedPacketSink(video)
  const start =
    (await sink.getKeyPacket(toContainer(t + FRAME_TOLERANCE_MICROS), { metadataOnly })) ??
    (await sink.getFirstKeyPacket({ metadataOnly }))
  if (start) yield* sink.packets(start, undefined, { metadataOnly })
}
