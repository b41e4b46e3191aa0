import { AudioSample, AudioSampleSink, EncodedPacketSink, type InputAudioTrack } from 'mediabunny'
import { toInterleavedStereo } from '@/core/sound/downmix'

/**
 * Packets given to the browser's decoder and blocks that came out of it and were not fetched: enough to keep it busy,
 * little to throw away.
 */
const MAX_ON_THE_WAY = 256

/** Blocks fetched at a time: going to and fro for each takes longer than decoding it. */
const BLOCKS_TOGETHER = 32

/** Decoded before what is wanted, in seconds: by then a decoder has heard what its first block overlaps with. */
const LEAD = 0.1

/** Chromium says that it decodes these and ends the whole page over them; the library unpacks them itself. */
const CRASHES = /^pcm-s24/

/**
 * A track's sound between two times, both in container seconds, in blocks as the codec has them; the first and the
 * last reach beyond. Whoever takes a block closes it. Throws when it cannot be decoded. Stop reading to stop
 * decoding.
 */
export async function* decoded(track: InputAudioTrack, from: number, to = Infinity): AsyncGenerator<AudioSample> {
  const config = await track.getDecoderConfig()
  const early = Math.max(from - LEAD, Math.min(from, await track.getFirstTimestamp()))
  const blocks =
    config && !CRASHES.test(config.codec) && (await AudioDecoder.isConfigSupported(config)).supported
      ? byBrowser(track, config, early, to)
      : new AudioSampleSink(track).samples(early, to)
  for await (const block of blocks) {
    if (block.timestamp + block.duration > from) yield block
    else block.close()
  }
}

/** Straight into the browser's decoder: half the time of the library's way, which is made for playing. */
async function* byBrowser(
  track: InputAudioTrack,
  config: AudioDecoderConfig,
  from: number,
  to: number,
): AsyncGenerator<AudioSample> {
  const sink = new EncodedPacketSink(track)
  const first = (await sink.getPacket(from)) ?? (await sink.getFirstPacket())
  if (!first) return
  const packets = sink.packets(first)
  const ready: AudioSample[] = []
  let [ended, failure, wake] = [false, null as unknown, () => {}]
  const failed = (error: unknown) => {
    failure = error
    wake()
  }
  const decoder = new AudioDecoder({
    output: (data) => {
      ready.push(new AudioSample(data))
      if (ready.length >= BLOCKS_TOGETHER) wake()
    },
    error: failed,
  })
  decoder.addEventListener('dequeue', () => {
    if (decoder.decodeQueueSize <= MAX_ON_THE_WAY / 2) wake()
  })
  let off: number | null = null
  try {
    decoder.configure(config)
    for (let more = true; !ended || ready.length > 0;) {
      while (more && decoder.decodeQueueSize + ready.length < MAX_ON_THE_WAY) {
        const { value: packet } = await packets.next()
        if (failure !== null) throw failure
        more = packet !== undefined && packet.timestamp < to
        if (packet && more) decoder.decode(packet.toEncodedAudioChunk())
        else
          decoder.flush().then(() => {
            ended = true
            wake()
          }, failed)
      }
      for (let block = ready.shift(); block; block = ready.shift()) {
        // Timestamps before 0 do not come back as they went in.
        off ??= first.timestamp < 0 ? first.timestamp - block.timestamp : 0
        block.setTimestamp(block.timestamp + off)
        yield block
      }
      if (failure !== null) throw failure
      if (!ended && (!more || decoder.decodeQueueSize > MAX_ON_THE_WAY / 2))
        await new Promise<void>((resolve) => (wake = resolve))
    }
  } finally {
    for (const block of ready) block.close()
    if (decoder.state !== 'closed') decoder.close()
    await packets.return(undefined)
  }
}

/** Decoded sound as planar floats, one array a channel; the sample stays the caller's to close. */
export function toPlanar(sample: AudioSample): Float32Array[] {
  return Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
    const plane = new Float32Array(sample.numberOfFrames)
    sample.copyTo(plane, { format: 'f32-planar', planeIndex })
    return plane
  })
}

/** Fills `stereo` with decoded sound, interleaved, from frame `start` on; the sample stays the caller's to close. */
export function copyStereo(sample: AudioSample, start: number, stereo: Float32Array): void {
  const frameCount = stereo.length / 2
  if (sample.numberOfChannels !== 2) stereo.set(toInterleavedStereo(toPlanar(sample), start, frameCount))
  else if (frameCount > 0) sample.copyTo(stereo, { format: 'f32', planeIndex: 0, frameOffset: start, frameCount })
}
