import { InferenceSession, Tensor, env } from 'onnxruntime-web/wasm'
import type { SpeechWorker } from '../workers/speech.protocol'

/** Telephone quality: two thirds of the time that twice the rate takes, and edges as exact. */
export const SPEECH_SAMPLE_RATE = 8000

/** At 8 kHz, Silero v6 hears 256 new samples at a time, after the 32 before them. */
const NEW = 256
const BEFORE = 32

/** Stretches that are listened to side by side: in a batch, a sample costs a twelfth of what it costs alone. */
const MAX_LANES = 128

/** What each lane hears first to find its bearings, in steps: a little under half a second. */
const WARM_UP = 14

/** With fewer steps to a lane than this, finding bearings would cost more than going side by side saves. */
const MIN_STEPS = 40

const MODEL = new URL('@ricky0123/vad-web/dist/silero_vad_v6.onnx', import.meta.url)

/** Tells speech from other sound, with the Silero model run on the processor. */
export class SpeechDetector implements SpeechWorker {
  private session: Promise<InferenceSession> | null = null

  async makeReady(): Promise<void> {
    await (this.session ??= load())
  }

  async probabilities(mono: Float32Array): Promise<Float32Array> {
    const session = await (this.session ??= load())
    const steps = Math.ceil(mono.length / NEW)
    const lanes = Math.max(1, Math.min(MAX_LANES, Math.floor(steps / MIN_STEPS)))
    const perLane = Math.ceil(steps / lanes)
    const out = new Float32Array(steps)
    const rate = new Tensor('int64', BigInt64Array.of(BigInt(SPEECH_SAMPLE_RATE)), [])
    let state: Tensor = new Tensor('float32', new Float32Array(2 * lanes * 128), [2, lanes, 128])
    for (let i = -WARM_UP; i < perLane; i++) {
      const input = new Float32Array(lanes * (NEW + BEFORE))
      for (let lane = 0; lane < lanes; lane++)
        fill(input, lane * (NEW + BEFORE), mono, (lane * perLane + i) * NEW - BEFORE)
      const { output, stateN } = await session.run({
        input: new Tensor('float32', input, [lanes, NEW + BEFORE]),
        state,
        sr: rate,
      })
      if (!output || !stateN) throw new Error('the speech model gives no result')
      state = stateN as Tensor
      for (let lane = 0; i >= 0 && lane < lanes; lane++) out[lane * perLane + i] = Number(output.data[lane])
    }
    return out
  }
}

async function load(): Promise<InferenceSession> {
  env.wasm.numThreads = 1
  const model = await (await fetch(MODEL)).arrayBuffer()
  return InferenceSession.create(model)
}

/** Copies one lane's samples; before the start and after the end there is silence. */
function fill(input: Float32Array, at: number, mono: Float32Array, from: number): void {
  const start = Math.max(0, from)
  const end = Math.min(mono.length, from + NEW + BEFORE)
  if (end > start) input.set(mono.subarray(start, end), at + start - from)
}
