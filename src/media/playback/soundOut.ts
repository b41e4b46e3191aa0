import { AudioBufferSink } from 'mediabunny'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { openSource, type Source } from '../source/openSource'
import type { SourceFile } from '../workers/inspect.protocol'

/** Sound is scheduled this far ahead: enough to ride out a busy main thread, little enough to stop at once. */
const AHEAD_SECONDS = 1

/** Time to decode the first buffers before the first of them is due. */
const START_DELAY_SECONDS = 0.08

/** Plays a recording's sound through the machine's speakers, from any moment, at normal speed. */
export class SoundOut {
  private readonly context = new AudioContext()
  private readonly gain = this.context.createGain()
  private source: Source | null = null
  private run: { abort: AbortController; nodes: Set<AudioBufferSourceNode> } | null = null

  constructor() {
    this.gain.connect(this.context.destination)
  }

  async open(file: SourceFile): Promise<void> {
    this.stop()
    this.source?.dispose()
    this.source = await openSource(file.file, file.originMicros)
  }

  /** Linear gain, 0..1; changes glide over a few milliseconds so that they do not click. */
  setVolume(volume: number): void {
    this.gain.gain.setTargetAtTime(volume, this.context.currentTime, 0.01)
  }

  /** Starts at `from`; returns the wall time (performance.timeOrigin + now, ms) at which that moment will be heard. */
  async start(from: Micros): Promise<number> {
    this.stop()
    if (this.context.state === 'suspended') await this.context.resume().catch(() => {})
    const startTime = this.context.currentTime + START_DELAY_SECONDS
    const epochMs = performance.timeOrigin + performance.now() + (START_DELAY_SECONDS + this.context.outputLatency) * 1000
    if (this.source?.sound) {
      this.run = { abort: new AbortController(), nodes: new Set() }
      void this.schedule(this.source, from, startTime, this.run).catch(() => this.stop())
    }
    return epochMs
  }

  stop(): void {
    this.run?.abort.abort()
    for (const node of this.run?.nodes ?? []) node.stop()
    this.run = null
  }

  async close(): Promise<void> {
    this.stop()
    this.source?.dispose()
    this.source = null
    await this.context.close()
  }

  private async schedule(source: Source, from: Micros, startTime: number, run: { abort: AbortController; nodes: Set<AudioBufferSourceNode> }): Promise<void> {
    if (!source.sound) return
    const sink = new AudioBufferSink(source.sound)
    for await (const { buffer, timestamp } of sink.buffers(source.toContainer(from))) {
      if (run.abort.signal.aborted) return
      const at = startTime + (source.toRecording(timestamp) - from) / MICROS_PER_SECOND
      const node = this.context.createBufferSource()
      node.buffer = buffer
      node.connect(this.gain)
      const late = Math.max(0, this.context.currentTime - at)
      if (late < buffer.duration) {
        node.start(at + late, late)
        run.nodes.add(node)
        node.onended = () => run.nodes.delete(node)
      }
      while (at - this.context.currentTime > AHEAD_SECONDS) {
        await new Promise((resolve) => setTimeout(resolve, 100))
        if (run.abort.signal.aborted) return
      }
    }
  }
}
