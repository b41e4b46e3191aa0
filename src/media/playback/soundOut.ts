import type { Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { claim } from '../ranks/turns'
import type { SoundBlock, SoundWorker } from '../workers/sound.protocol'
import { startWorker } from '../workers/startWorker'

const SAMPLE_RATE = 48000

/** Sound is scheduled this far ahead: enough to ride out a busy main thread, little enough to stop at once. */
const AHEAD_SECONDS = 0.8

/** With every block sound is claimed for this long: blocks are at most this far apart. */
const CLAIM_MS = 1000

/** Time to decode the first buffers before the first of them is due. */
const START_DELAY_SECONDS = 0.12

/** What is heard at each place while scrubbing. */
const GRAIN_MICROS = 90_000
const GRAIN_FADE_SECONDS = 0.012

/**
 * Plays a highlight's mix through the machine's speakers, from any moment, at normal speed. Made after a person's
 * first action, which browsers ask for.
 */
export class SoundOut {
  private readonly context = new AudioContext({ sampleRate: SAMPLE_RATE })
  private readonly gain = this.context.createGain()
  private readonly worker = startWorker<SoundWorker>(
    () => new Worker(new URL('../workers/sound.worker.ts', import.meta.url), { type: 'module' }),
  )
  private readonly mixer = this.worker.remote
  private run: { live: boolean; nodes: Set<AudioBufferSourceNode> } | null = null
  private grains = 0

  constructor(files: ReadonlyMap<string, Blob>) {
    this.gain.connect(this.context.destination)
    void this.mixer.open(files)
  }

  setFiles(files: ReadonlyMap<string, Blob>): void {
    void this.mixer.open(files)
  }

  setEdit(edit: Edit, speechOf: SpeechOf): void {
    void this.mixer.setEdit(edit, speechOf)
  }

  /** Linear gain, 0..1; changes glide over a few milliseconds so that they do not click. */
  setVolume(volume: number): void {
    this.gain.gain.setTargetAtTime(volume, this.context.currentTime, 0.01)
  }

  /**
   * Starts at output time `from`; returns the wall time (performance.timeOrigin + now, ms) at which that moment will
   * be heard.
   */
  async start(from: Micros): Promise<number> {
    this.stop()
    await this.wake()
    const startTime = this.context.currentTime + START_DELAY_SECONDS
    const epochMs =
      performance.timeOrigin + performance.now() + (START_DELAY_SECONDS + this.context.outputLatency) * 1000
    const run = { live: true, nodes: new Set<AudioBufferSourceNode>() }
    this.run = run
    void this.mixer.start(from)
    void this.schedule(startTime, run).catch(quietly('playing sound'))
    return epochMs
  }

  stop(): void {
    if (!this.run) return
    this.run.live = false
    for (const node of this.run.nodes) node.stop()
    this.run = null
  }

  /** Lets a moment of the highlight be heard; of calls that come quickly the last wins. */
  scrub(t: Micros): void {
    void this.playGrain(() => this.mixer.grain(t, GRAIN_MICROS))
  }

  /** The same of a passage's recording, also beyond its cut points. */
  scrubPassage(passageId: PassageId, recordingMicros: Micros): void {
    void this.playGrain(() => this.mixer.grainOf(passageId, recordingMicros, GRAIN_MICROS))
  }

  async close(): Promise<void> {
    this.stop()
    this.worker.end()
    await this.context.close()
  }

  private async wake(): Promise<void> {
    if (this.context.state === 'suspended') await this.context.resume().catch(quietly('playing sound'))
  }

  private async playGrain(get: () => Promise<SoundBlock>): Promise<void> {
    const number = ++this.grains
    await this.wake()
    const block = await get().catch(() => null)
    if (!block || number !== this.grains || this.run) return
    const node = this.nodeFor(block)
    const envelope = this.context.createGain()
    const now = this.context.currentTime
    const end = now + block.length / 2 / SAMPLE_RATE
    envelope.gain.setValueAtTime(0, now)
    envelope.gain.linearRampToValueAtTime(1, now + GRAIN_FADE_SECONDS)
    envelope.gain.setValueAtTime(1, Math.max(now + GRAIN_FADE_SECONDS, end - GRAIN_FADE_SECONDS))
    envelope.gain.linearRampToValueAtTime(0, end)
    node.connect(envelope).connect(this.gain)
    node.start(now)
  }

  private nodeFor(block: Float32Array): AudioBufferSourceNode {
    const frames = block.length / 2
    const buffer = this.context.createBuffer(2, Math.max(1, frames), SAMPLE_RATE)
    for (const channel of [0, 1]) {
      const plane = buffer.getChannelData(channel)
      for (let i = 0; i < frames; i++) plane[i] = block[i * 2 + channel] ?? 0
    }
    const node = this.context.createBufferSource()
    node.buffer = buffer
    return node
  }

  private async schedule(startTime: number, run: { live: boolean; nodes: Set<AudioBufferSourceNode> }): Promise<void> {
    let at = startTime
    for (;;) {
      claim('sound', CLAIM_MS)
      const block = await this.mixer.next()
      if (!block || !run.live) return
      const node = this.nodeFor(block)
      node.connect(this.gain)
      node.onended = () => run.nodes.delete(node)
      const late = this.context.currentTime - at
      // What comes after its time is over is left out; only what was started can be stopped.
      if (late < block.length / 2 / SAMPLE_RATE) {
        node.start(Math.max(at, this.context.currentTime), Math.max(0, late))
        run.nodes.add(node)
      }
      at += block.length / 2 / SAMPLE_RATE
      const ahead = at - this.context.currentTime
      if (ahead > AHEAD_SECONDS) await new Promise((resolve) => setTimeout(resolve, (ahead - AHEAD_SECONDS) * 1000))
    }
  }
}
