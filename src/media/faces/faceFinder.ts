import type { Human } from '@vladmandic/human'
import type { FoundFace } from '@/core/detect/regions/people'

/** Where the application serves the model and its WebAssembly; put there by scripts/placeModels. */
const FILES = '/faces/'

const MIN_CONFIDENCE = 0.4

/** Finds faces in pictures, on the processor. Its model is loaded when the first finder is opened. */
export class FaceFinder {
  private constructor(private readonly human: Human) {}

  /** Rejects when the model cannot be loaded. */
  static async open(): Promise<FaceFinder> {
    const { Human: Finder } = await import('@vladmandic/human')
    const off = { enabled: false }
    const human = new Finder({
      backend: 'wasm',
      wasmPath: FILES,
      wasmPlatformFetch: false,
      modelBasePath: FILES,
      debug: false,
      async: false,
      warmup: 'none',
      cacheSensitivity: 0,
      filter: off,
      face: {
        enabled: true,
        detector: {
          modelPath: 'blazeface.json',
          rotation: false,
          minConfidence: MIN_CONFIDENCE,
          maxDetected: 4,
          return: false,
        },
        mesh: off,
        attention: off,
        iris: off,
        description: off,
        emotion: off,
        antispoof: off,
        liveness: off,
      },
      body: off,
      hand: off,
      object: off,
      gesture: off,
      segmentation: off,
    })
    // Its threads do not survive minifying; one is enough for a model this small.
    human.tf.env().set('WASM_HAS_MULTITHREAD_SUPPORT', false)
    await human.load()
    return new FaceFinder(human)
  }

  /** Faces in a picture as shares of its size, the surest first. Boxes are drawn wide around the face. */
  async find({ data, width, height }: ImageData): Promise<FoundFace[]> {
    const { tf } = this.human
    const colours = new Float32Array(width * height * 3)
    for (let from = 0, to = 0; from < data.length; from += 4) {
      colours[to++] = data[from] ?? 0
      colours[to++] = data[from + 1] ?? 0
      colours[to++] = data[from + 2] ?? 0
    }
    const input = tf.tensor4d(colours, [1, height, width, 3])
    try {
      const { face } = await this.human.detect(input as never)
      return [...face]
        .sort((a, b) => b.boxScore - a.boxScore)
        .map(({ boxRaw: [x, y, w, h], boxScore }) => ({ x, y, width: w, height: h, score: boxScore }))
    } finally {
      tf.dispose(input)
    }
  }
}
