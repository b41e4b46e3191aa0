import { InferenceSession, Tensor, env } from 'onnxruntime-web/wasm'

/** Silero v6 hears 512 new samples at 16 kHz at a time, after the 64 before them. */
const NEW = 512
const BEFORE = 64

export const SPEECH_SAMPLE_RATE = 16_000

/** Stretches that are listened to side by side: in a batch a sample costs an eighth of what it costs alone. */
const LANES = 16

/** What each lane hears first to find its bearings, in steps of 512 samples: three quarters of a second. */
const WARM_UP = 24

const MODEL = new URL('@ricky0123/vad-web/dist/silero_vad_v6.onnx', import.meta.url)

/** Tells speech from other sound, with the Silero model run on the processor. */
export class SpeechDetector {
  private constructor(private readonly session: InferenceSession) {}

  static async load(): Promise<SpeechDetector> {
    env.wasm.numThreads = 1
    const model = await (await fetch(MODEL)).arrayBuffer()
    return new SpeechDetector(await InferenceSession.create(model))
  }

  /** Probability of speech, 0..1, of each 512 samples of mono sound at 16 kHz from sample `from` on; what lies before is heard to find bearings. */
  async probabilities(mono: Float32Array, from: number): Promise<Float32Array> {
    const steps = Math.max(0, Math.ceil((mono.length - from) / NEW))
    const perLane = Math.ceil(steps / LANES)
    const out = new Float32Array(steps)
    let state: Tensor = new Tensor('float32', new Float32Array(2 * LANES * 128), [2, LANES, 128])
    const rate = new Tensor('int64', BigInt64Array.of(BigInt(SPEECH_SAMPLE_RATE)), [])
    for (let i = -WARM_UP; i < perLane; i++) {
      const input = new Float32Array(LANES * (NEW + BEFORE))
      for (let lane = 0; lane < LANES; lane++) fill(input, lane * (NEW + BEFORE), mono, from + (lane * perLane + i) * NEW - BEFORE)
      const result = await this.session.run({ input: new Tensor('float32', input, [LANES, NEW + BEFORE]), state, sr: rate })
      const { output, stateN } = result
      if (!output || !stateN) throw new Error('the speech model gives no result')
      state = stateN as Tensor
      if (i < 0) continue
      for (let lane = 0; lane < LANES; lane++) {
        const at = lane * perLane + i
        if (i < perLane && at < Math.min(steps, (lane + 1) * perLane)) out[at] = Number(output.data[lane])
      }
    }
    return out
  }
}

/** Copies one lane's samples; before the start and after the end there is silence. */
function fill(input: Float32Array, at: number, mono: Float32Array, from: number): void {
  const start = Math.max(0, from)
  const end = Math.min(mono.length, from + NEW + BEFORE)
  if (end > start) input.set(mono.subarray(start, end), at + start - from)
}
