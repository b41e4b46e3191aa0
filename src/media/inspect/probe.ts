import { EncodedPacketSink, VideoSampleSink, type Input, type InputVideoTrack } from 'mediabunny'
import {
  videoFacts as videoFactsSchema,
  type RecordingNotice,
  type SoundFacts,
  type VideoFacts,
} from '@/core/model/recording'
import { toFrameRate } from '@/core/time/frameRate'
import { MICROS_PER_SECOND, toMicros, type Micros } from '@/core/time/micros'
import { explain } from '@/diagnostics/note'
import { codecName } from '../source/codecName'
import { openInput } from '../source/openSource'

/** What a file turned out to hold. Times are recording time; `originMicros` is where its zero lies in the container. */
export interface ProbedFacts {
  durationMicros: Micros
  originMicros: number
  video: VideoFacts
  sound: SoundFacts | null
  notices: RecordingNotice[]
}

export type ProbeFailure =
  | { reason: 'empty' }
  | { reason: 'not-a-video' }
  | { reason: 'cut-short' }
  | { reason: 'no-video-track' }
  | { reason: 'undecodable-codec'; codec: string }
  | { reason: 'high-dynamic-range' }
  | { reason: 'unreadable'; detail: string }

export type ProbeResult = ({ ok: true } & ProbedFacts) | ({ ok: false } & ProbeFailure)

/** Packets looked at for the frame rate; the library's own advice for a sure answer. */
const RATE_PACKETS = 256

/** Finds out what a file holds and whether this browser can show it. Reads a few megabytes at most; never throws. */
export async function probe(file: Blob): Promise<ProbeResult> {
  if (file.size === 0) return { ok: false, reason: 'empty' }
  const input = openInput(file)
  try {
    if (!(await input.canRead())) return { ok: false, reason: 'not-a-video' }
    return await probeTracks(input)
  } catch (error) {
    return { ok: false, reason: 'unreadable', detail: explain('probing a file', error) }
  } finally {
    input.dispose()
  }
}

async function probeTracks(input: Input): Promise<ProbeResult> {
  let track: InputVideoTrack | null
  try {
    track = await input.getPrimaryVideoTrack()
    if (!track && (await input.getTracks()).length === 0) return { ok: false, reason: 'cut-short' }
  } catch {
    return { ok: false, reason: 'cut-short' }
  }
  if (!track) return { ok: false, reason: 'no-video-track' }
  const codec = await track.getCodec()
  if (!codec || !(await track.canDecode())) {
    const code = codec ?? (await track.getInternalCodecId())
    return { ok: false, reason: 'undecodable-codec', codec: codecName(code) }
  }
  if (await track.hasHighDynamicRange()) return { ok: false, reason: 'high-dynamic-range' }

  const originMicros = Math.max(0, toMicros(await input.getFirstTimestamp()))
  const notices: RecordingNotice[] = []
  const expectedMicros = toMicros(await track.computeDuration()) - originMicros
  const durationMicros = (await readableEnd(track)) - originMicros
  if (durationMicros <= 0 || !(await firstFrameDecodes(track))) return { ok: false, reason: 'cut-short' }
  if (durationMicros < expectedMicros - MICROS_PER_SECOND / 10) notices.push({ kind: 'ends-early', expectedMicros })
  const sound = await probeSound(input, originMicros, notices)
  const video = await videoFacts(track, originMicros, durationMicros)
  if (!usableSize.safeParse(video).success)
    return { ok: false, reason: 'unreadable', detail: `its picture is ${video.width} × ${video.height}` }
  return { ok: true, durationMicros, originMicros, video, sound, notices }
}

/** What can be cut from. */
const usableSize = videoFactsSchema.pick({ width: true, height: true })

async function videoFacts(track: InputVideoTrack, originMicros: number, durationMicros: Micros): Promise<VideoFacts> {
  const rate = await track.computeFrameRateMetrics({ targetPacketCount: RATE_PACKETS })
  const guess = rate.underlyingFrameRate ?? rate.bestGuessFrameRate
  // A single picture has no rate; it is shown as one frame a second.
  const fps =
    Number.isFinite(guess) && guess > 0 ? Math.min(guess, 1000) : Math.max(0.001, MICROS_PER_SECOND / durationMicros)
  return {
    width: await track.getDisplayWidth(),
    height: await track.getDisplayHeight(),
    rotation: await track.getRotation(),
    frameRate: toFrameRate(fps),
    variableFrameRate: rate.underlyingFrameRate === null,
    firstFrameMicros: Math.max(0, toMicros(await track.getFirstTimestamp()) - originMicros),
    codec: codecName(await track.getCodec()),
  }
}

async function probeSound(input: Input, originMicros: number, notices: RecordingNotice[]): Promise<SoundFacts | null> {
  const track = await input.getPrimaryAudioTrack()
  if (!track) return null
  const code = (await track.getCodec()) ?? (await track.getInternalCodecId())
  if (!(await track.canDecode())) {
    notices.push({ kind: 'sound-not-decodable', codec: codecName(code) })
    return null
  }
  return {
    codec: codecName(code),
    sampleRate: await track.getSampleRate(),
    channels: await track.getNumberOfChannels(),
    startMicros: Math.max(0, toMicros(await track.getFirstTimestamp()) - originMicros),
  }
}

async function firstFrameDecodes(track: InputVideoTrack): Promise<boolean> {
  try {
    const sample = await new VideoSampleSink(track).getSample(Math.max(0, await track.getFirstTimestamp()))
    sample?.close()
    return sample !== null
  } catch {
    return false
  }
}

/** Container time at which the last whole packet ends; earlier than the index says when the file was cut off. */
async function readableEnd(track: InputVideoTrack): Promise<Micros> {
  const sink = new EncodedPacketSink(track)
  const endOfPacketAt = async (seconds: number) => {
    try {
      const packet = await sink.getPacket(seconds)
      return packet && packet.data.byteLength > 0 && packet.data.byteLength === packet.byteLength
        ? packet.timestamp + packet.duration
        : null
    } catch {
      return null
    }
  }
  const end = await endOfPacketAt(Infinity)
  if (end !== null) return toMicros(end)
  let good = await track.getFirstTimestamp()
  let bad = await track.computeDuration()
  let last = 0
  while (bad - good > 0.01) {
    const middle = (good + bad) / 2
    const found = await endOfPacketAt(middle)
    if (found === null) bad = middle
    else {
      good = middle
      last = Math.max(last, found)
    }
  }
  return toMicros(last)
}

/** What a file of sound alone holds. */
export interface ProbedSound {
  durationMicros: Micros
  originMicros: number
  sound: SoundFacts
}

export type SoundProbeResult =
  ({ ok: true } & ProbedSound) | ({ ok: false } & ProbeFailure) | { ok: false; reason: 'no-sound' }

/** Finds out whether a file's sound can be used; its picture, if it has one, is left alone. Never throws. */
export async function probeSoundFile(file: Blob): Promise<SoundProbeResult> {
  if (file.size === 0) return { ok: false, reason: 'empty' }
  const input = openInput(file)
  try {
    if (!(await input.canRead())) return { ok: false, reason: 'not-a-video' }
    const track = await input.getPrimaryAudioTrack()
    if (!track) return { ok: false, reason: 'no-sound' }
    const originMicros = Math.max(0, toMicros(await input.getFirstTimestamp()))
    const sound = await probeSound(input, originMicros, [])
    if (!sound)
      return {
        ok: false,
        reason: 'undecodable-codec',
        codec: codecName((await track.getCodec()) ?? (await track.getInternalCodecId())),
      }
    return { ok: true, durationMicros: toMicros(await track.computeDuration()) - originMicros, originMicros, sound }
  } catch (error) {
    return { ok: false, reason: 'unreadable', detail: explain('probing a file', error) }
  } finally {
    input.dispose()
  }
}
