import { EncodedPacket, EncodedVideoPacketSource } from 'mediabunny'
import type { CopyForm } from '@/core/picture/previewCopy'

/** Frames that wait in the encoder at most: each is one that the decoder cannot use again yet. */
const MAX_WAITING = 4

/** A place is never farther from a key frame than this. */
const KEY_FRAME_SECONDS = 0.5

/** An encoder of one size that takes frames of any, and a track of what it codes. */
export class ScalingEncoder {
  readonly track: EncodedVideoPacketSource
  private readonly encoder: VideoEncoder
  private readonly keyFrameEvery: number
  private taken = 0
  private written: Promise<void> = Promise.resolve()
  private error: unknown = null
  /** Lets whoever waits for the encoder look again. */
  private wake = () => {}

  constructor(config: VideoEncoderConfig, kind: 'avc' | 'vp8', { frameRate }: CopyForm) {
    this.track = new EncodedVideoPacketSource(kind)
    this.keyFrameEvery = Math.max(1, Math.round(KEY_FRAME_SECONDS * frameRate))
    this.encoder = new VideoEncoder({
      output: (chunk, meta) => {
        this.written = this.written.then(() => this.track.add(EncodedPacket.fromEncodedChunk(chunk), meta))
        this.written.catch((error: unknown) => this.fail(error))
      },
      error: (error) => this.fail(error),
    })
    this.encoder.ondequeue = () => this.wake()
    this.encoder.configure(config)
  }

  /** Codes a frame, which it closes. Resolves when it can do with another; rejects when it broke down. */
  async add(frame: VideoFrame): Promise<void> {
    this.encoder.encode(frame, { keyFrame: this.taken++ % this.keyFrameEvery === 0 })
    frame.close()
    while (this.error === null && this.encoder.encodeQueueSize >= MAX_WAITING)
      await new Promise<void>((resolve) => (this.wake = resolve))
    this.check()
  }

  /** Waits until everything is written. */
  async end(): Promise<void> {
    await this.encoder.flush()
    await this.written
    this.check()
  }

  close(): void {
    if (this.encoder.state !== 'closed') this.encoder.close()
  }

  private fail(error: unknown): void {
    this.error ??= error
    this.wake()
  }

  private check(): void {
    if (this.error !== null) throw this.error instanceof Error ? this.error : new Error('the encoder broke down')
  }
}

let scales: Promise<boolean> | null = null

/** Whether this browser's encoder brings frames of another size to its own, and does not take a part of them. */
export function encoderScales(config: VideoEncoderConfig): Promise<boolean> {
  return (scales ??= seesItScale(config).catch(() => false))
}

const PROBE_SIDE = 128

/** A frame whose right half is white, coded at half its size, is white at three quarters of that. */
async function seesItScale(config: VideoEncoderConfig): Promise<boolean> {
  const side = PROBE_SIDE
  const bytes = new Uint8Array((side * side * 3) / 2).fill(128)
  for (let i = 0; i < side * side; i++) bytes[i] = i % side < side / 2 ? 16 : 235
  const layout = { format: 'I420', codedWidth: side, codedHeight: side, timestamp: 0 } as const
  const chunks: EncodedVideoChunk[] = []
  let decoderConfig: VideoDecoderConfig | undefined
  const encoder = new VideoEncoder({
    output: (chunk, meta) => {
      chunks.push(chunk)
      decoderConfig ??= meta?.decoderConfig
    },
    error: () => {},
  })
  encoder.configure({ ...config, width: side / 2, height: side / 2 })
  const frame = new VideoFrame(bytes, layout)
  encoder.encode(frame, { keyFrame: true })
  frame.close()
  await encoder.flush()
  encoder.close()
  const [chunk] = chunks
  if (!chunk || !decoderConfig) return false
  return decodesTo(decoderConfig, chunk, (luma, stride) => {
    const at = (x: number) => luma[(side / 4) * stride + x] ?? 0
    return at(side / 8) < 80 && at((3 * side) / 8) > 170
  })
}

async function decodesTo(
  config: VideoDecoderConfig,
  chunk: EncodedVideoChunk,
  test: (luma: Uint8Array, stride: number) => boolean,
): Promise<boolean> {
  const frames: VideoFrame[] = []
  const decoder = new VideoDecoder({ output: (frame) => frames.push(frame), error: () => {} })
  try {
    decoder.configure(config)
    decoder.decode(chunk)
    await decoder.flush()
    const [frame] = frames
    if (!frame) return false
    const bytes = new Uint8Array(frame.allocationSize())
    const [luma] = await frame.copyTo(bytes)
    return luma !== undefined && test(bytes.subarray(luma.offset), luma.stride)
  } finally {
    for (const frame of frames) frame.close()
    if (decoder.state !== 'closed') decoder.close()
  }
}
