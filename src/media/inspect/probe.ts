import { EncodedPacketSink, VideoSampleSink, type Input, type InputAudioTrack, type InputVideoTrack } from 'mediabunny'
import { readAvcConfig } from '@/core/coded/avcConfig'
import { mayBeInterlaced, sequenceSetIn } from '@/core/coded/avcSequence'
import { holdsEncrypted, unreadContainer, unreadPictures } from '@/core/coded/containers'
import {
  videoFacts as videoFactsSchema,
  type RecordingNotice,
  type SoundFacts,
  type VideoFacts,
} from '@/core/model/recording'
import { toFrameRate } from '@/core/time/frameRate'
import { MICROS_PER_SECOND, toMicros, type Micros } from '@/core/time/micros'
import { explain } from '@/diagnostics/note'
import { avcDescription } from '../source/avcDescription'
import { codecName } from '../source/codecName'
import { isOtherSize } from '../source/asRecorded'
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
  /** A kind of file that holds pictures and that nothing here reads. */
  | { reason: 'unread-container'; container: string }
  | { reason: 'encrypted' }
  | { reason: 'no-key-frame' }
  | { reason: 'cut-short' }
  | { reason: 'no-video-track' }
  | { reason: 'undecodable-codec'; codec: string }
  | { reason: 'high-dynamic-range' }
  | { reason: 'unreadable'; detail: string }

export type ProbeResult = ({ ok: true } & ProbedFacts) | ({ ok: false } & ProbeFailure)

/** Packets looked at for the frame rate; the library's own advice for a sure answer. */
const RATE_PACKETS = 256

/** Bytes at the start of a file, and at its end, in which it says what it is. */
const HEAD_BYTES = 1 << 18

function refusalOf(head: Uint8Array): ProbeResult {
  const container = unreadContainer(head)
  return container ? { ok: false, reason: 'unread-container', container } : { ok: false, reason: 'not-a-video' }
}

/** Finds out what a file holds and whether this browser can show it. Reads a few megabytes at most; never throws. */
export async function probe(file: Blob): Promise<ProbeResult> {
  if (file.size === 0) return { ok: false, reason: 'empty' }
  const input = openInput(file)
  try {
    const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer())
    if (!(await input.canRead())) return refusalOf(head)
    const pictures = unreadPictures(head)
    if (pictures) return { ok: false, reason: 'undecodable-codec', codec: pictures }
    const tail = new Uint8Array(await file.slice(-HEAD_BYTES).arrayBuffer())
    return await probeTracks(input, holdsEncrypted(head) || holdsEncrypted(tail))
  } catch (error) {
    return { ok: false, reason: 'unreadable', detail: explain('probing a file', error) }
  } finally {
    input.dispose()
  }
}

async function probeTracks(input: Input, isEncrypted: boolean): Promise<ProbeResult> {
  let track: InputVideoTrack | null
  try {
    track = await input.getPrimaryVideoTrack()
    if (!track && (await input.getTracks()).length === 0) return { ok: false, reason: 'cut-short' }
  } catch (error) {
    if (isEncrypted) return { ok: false, reason: 'encrypted' }
    // What the media library says where no packet brings the parameters that a picture is decoded by.
    const noKey = error instanceof Error && /DecoderConfigurationRecord/.test(error.message)
    return { ok: false, reason: noKey ? 'no-key-frame' : 'cut-short' }
  }
  if (!track) return { ok: false, reason: 'no-video-track' }
  const codec = await track.getCodec()
  if (!codec || !(await track.canDecode())) {
    const code = codec ?? (await track.getInternalCodecId())
    return { ok: false, reason: 'undecodable-codec', codec: codecName(code) }
  }
  if (isEncrypted) return { ok: false, reason: 'encrypted' }
  const { transfer }: { transfer?: string | null } = await track.getColorSpace()
  if (transfer === 'pq' || transfer === 'hlg') return { ok: false, reason: 'high-dynamic-range' }

  const originMicros = Math.max(0, toMicros(await input.getFirstTimestamp()))
  const notices: RecordingNotice[] = []
  const expectedMicros = toMicros(await track.computeDuration()) - originMicros
  const durationMicros = (await readableEnd(track)) - originMicros
  const key = await firstKeyFrame(track)
  if (!key) return { ok: false, reason: durationMicros > 0 ? 'no-key-frame' : 'cut-short' }
  if (durationMicros <= 0 || !(await decodes(track, key.seconds))) return { ok: false, reason: 'cut-short' }
  if (key.lostMicros > 0) notices.push({ kind: 'starts-without-key-frame', lostMicros: key.lostMicros })
  if (durationMicros < expectedMicros - MICROS_PER_SECOND / 10) notices.push({ kind: 'ends-early', expectedMicros })
  const sound = await probeSound(input, originMicros, notices)
  if (sound) notices.push(...(await soundBeyond(input, originMicros + durationMicros)))
  notices.push(...(await otherTracks(input)), ...(await pictureNotices(track)))
  const video = await videoFacts(track, key.seconds, originMicros, durationMicros)
  if (!usableSize.safeParse(video).success)
    return { ok: false, reason: 'unreadable', detail: `its picture is ${video.width} × ${video.height}` }
  return { ok: true, durationMicros, originMicros, video, sound, notices }
}

/** What can be cut from. */
const usableSize = videoFactsSchema.pick({ width: true, height: true })

async function videoFacts(
  track: InputVideoTrack,
  firstSeconds: number,
  originMicros: number,
  durationMicros: Micros,
): Promise<VideoFacts> {
  const rate = await track.computeFrameRateMetrics({ targetPacketCount: RATE_PACKETS })
  const guess = rate.underlyingFrameRate ?? rate.bestGuessFrameRate
  // A single picture has no rate: its own length is one frame.
  const fps =
    rate.probedPacketCount > 1 && Number.isFinite(guess) && guess > 0
      ? Math.min(guess, 1000)
      : Math.min(1000, Math.max(0.001, MICROS_PER_SECOND / durationMicros))
  return {
    width: await track.getDisplayWidth(),
    height: await track.getDisplayHeight(),
    rotation: await track.getRotation(),
    frameRate: toFrameRate(fps),
    variableFrameRate: rate.probedPacketCount > 1 && !rate.frameRateIsConstant,
    firstFrameMicros: Math.max(0, toMicros(firstSeconds) - originMicros),
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

/**
 * The first picture that can be decoded by itself, container time, and how long others come before it; null where
 * there is none.
 */
async function firstKeyFrame(track: InputVideoTrack): Promise<{ seconds: number; lostMicros: Micros } | null> {
  const sink = new EncodedPacketSink(track)
  const first = await track.getFirstTimestamp()
  const key = await sink.getFirstKeyPacket({ metadataOnly: true })
  return key && { seconds: Math.max(first, key.timestamp), lostMicros: Math.max(0, toMicros(key.timestamp - first)) }
}

/** Tracks that are not used, which nobody would miss unless they are told. */
async function otherTracks(input: Input): Promise<RecordingNotice[]> {
  const notices: RecordingNotice[] = []
  const sounds = await input.getAudioTracks()
  const heard = await input.getPrimaryAudioTrack()
  if (heard && sounds.length > 1)
    notices.push({ kind: 'several-sound-tracks', count: sounds.length, heard: await nameOf(heard, sounds) })
  const pictures = await input.getVideoTracks()
  if (pictures.length > 1) notices.push({ kind: 'several-picture-tracks', count: pictures.length })
  return notices
}

/** A sound track's own name, else which one it is, from 1. */
async function nameOf(track: InputAudioTrack, all: readonly InputAudioTrack[]): Promise<string> {
  const name = (await track.getName())?.trim()
  return (name || String(all.indexOf(track) + 1)).slice(0, 80)
}

/** Sound goes on so long after the pictures before it is told. */
const WORTH_TELLING_MICROS = MICROS_PER_SECOND / 2

async function soundBeyond(input: Input, endMicros: number): Promise<RecordingNotice[]> {
  const seconds = (await (await input.getPrimaryAudioTrack())?.computeDuration()) ?? 0
  const beyondMicros = toMicros(seconds) - endMicros
  return beyondMicros > WORTH_TELLING_MICROS ? [{ kind: 'sound-goes-on', beyondMicros }] : []
}

/** The parameters by which pictures of H.264 are coded at the start; null for others. */
async function sequenceSetOf(track: InputVideoTrack): Promise<Uint8Array | null> {
  if ((await track.getCodec()) !== 'avc') return null
  const description = await avcDescription(track)
  if (description) return readAvcConfig(description)?.sequenceSets[0] ?? null
  const key = await new EncodedPacketSink(track).getFirstKeyPacket()
  return key && sequenceSetIn(key.data)
}

/** What of the pictures their owner should know before they cut from them. */
async function pictureNotices(track: InputVideoTrack): Promise<RecordingNotice[]> {
  const notices: RecordingNotice[] = []
  const set = await sequenceSetOf(track)
  if (set && mayBeInterlaced(set)) notices.push({ kind: 'interlaced' })
  const key = await new EncodedPacketSink(track).getKeyPacket(Infinity, { metadataOnly: true }).catch(() => null)
  const last = key && (await new VideoSampleSink(track).getSample(key.timestamp).catch(() => null))
  if (last && (await isOtherSize(last, track))) {
    const { width, height } = last.visibleRect
    notices.push({ kind: 'size-changes', width, height })
  }
  last?.close()
  return notices
}

async function decodes(track: InputVideoTrack, seconds: number): Promise<boolean> {
  try {
    const sample = await new VideoSampleSink(track).getSample(seconds)
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
