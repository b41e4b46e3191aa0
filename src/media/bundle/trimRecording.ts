import {
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Mp4OutputFormat,
  MkvOutputFormat,
  Output,
  StreamTarget,
  type EncodedPacket,
  type InputAudioTrack,
  type InputVideoTrack,
  type StreamTargetChunk,
} from 'mediabunny'
import type { Span } from '@/core/cut/usedSpans'
import { openInput } from '../source/openSource'

/**
 * Copies what lies in some spans of a recording (recording time) into a file, packet by packet and without coding
 * anything again, from the key frame before each span on. All keeps its own time, so that edits need no change;
 * between the spans nothing is. False, with nothing worth keeping written, when no container holds its codecs.
 */
export async function trimRecording(
  file: Blob,
  originMicros: number,
  spans: readonly Span[],
  writable: WritableStream<StreamTargetChunk>,
): Promise<{ ok: true; ending: 'mp4' | 'mkv' } | { ok: false }> {
  const input = openInput(file)
  try {
    const video = await input.getPrimaryVideoTrack()
    if (!video?.codec) return { ok: false }
    const audio = await input.getPrimaryAudioTrack()
    const format = [new Mp4OutputFormat(), new MkvOutputFormat()].find(
      (f) =>
        f.getSupportedVideoCodecs().includes(video.codec as never) &&
        (!audio?.codec || f.getSupportedAudioCodecs().includes(audio.codec as never)),
    )
    if (!format) return { ok: false }
    const output = new Output({ format, target: new StreamTarget(writable, { chunked: true, chunkSize: 4 << 20 }) })
    const picture = new EncodedVideoPacketSource(video.codec)
    output.addVideoTrack(picture, { rotation: await video.getRotation() })
    const sound = audio?.codec ? new EncodedAudioPacketSource(audio.codec) : null
    if (sound) output.addAudioTrack(sound)
    await output.start()
    const seconds = spans.map((s) => ({
      from: (s.fromMicros + originMicros) / 1e6,
      to: (s.toMicros + originMicros) / 1e6,
    }))
    const videoConfig = await video.getDecoderConfig()
    const audioConfig = (await audio?.getDecoderConfig()) ?? null
    // Both at once: a muxer waits for the track that is behind.
    await Promise.all([
      copyTrack(video, seconds, (packet, first) =>
        picture.add(packet, first && videoConfig ? { decoderConfig: videoConfig } : undefined),
      ).then(() => picture.close()),
      sound && audio
        ? copyTrack(audio, seconds, (packet, first) =>
            sound.add(packet, first && audioConfig ? { decoderConfig: audioConfig } : undefined),
          ).then(() => sound.close())
        : null,
    ])
    await output.finalize()
    return { ok: true, ending: format instanceof Mp4OutputFormat ? 'mp4' : 'mkv' }
  } finally {
    input.dispose()
  }
}

async function copyTrack(
  track: InputVideoTrack | InputAudioTrack,
  spans: readonly { from: number; to: number }[],
  add: (packet: EncodedPacket, first: boolean) => Promise<void>,
): Promise<void> {
  const sink = new EncodedPacketSink(track)
  let last = -Infinity
  let first = true
  for (const { from, to } of spans) {
    let packet = (await sink.getKeyPacket(from, { verifyKeyPackets: true })) ?? (await sink.getFirstPacket())
    // Pictures that are shown before the span's end may be coded after later ones: the whole of the last group is
    // taken.
    while (packet && (packet.timestamp < to || packet.type !== 'key')) {
      if (packet.sequenceNumber > last) {
        await add(packet, first)
        last = packet.sequenceNumber
        first = false
      }
      packet = await sink.getNextPacket(packet)
    }
  }
}
