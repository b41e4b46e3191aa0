import { VideoSample, type EncodedPacket, type InputVideoTrack } from 'mediabunny'

/**
 * Decodes one key frame by itself, for the caller to close; null where the browser cannot. A decoder that is to go on gives its first frame
 * only when several more are on their way; one that is told this is all gives it in a third of the time (docs/performance.md).
 */
export async function decodeKeyFrame(track: InputVideoTrack, packet: EncodedPacket): Promise<VideoSample | null> {
  const [config, rotation, flip] = await Promise.all([track.getDecoderConfig(), track.getRotation(), track.getFlip()])
  if (!config) return null
  let frame: VideoFrame | null = null
  const decoder = new VideoDecoder({
    output: (decoded) => {
      if (frame) decoded.close()
      else frame = decoded
    },
    // `flush` rejects as well, and what is wrong with the file is told by whoever goes on from here.
    error: () => {},
  })
  try {
    decoder.configure({ ...config, optimizeForLatency: true })
    decoder.decode(packet.toEncodedVideoChunk())
    await decoder.flush()
  } catch {
    return null
  } finally {
    if (decoder.state !== 'closed') decoder.close()
  }
  return frame && new VideoSample(frame, { rotation, flip, timestamp: packet.timestamp })
}
