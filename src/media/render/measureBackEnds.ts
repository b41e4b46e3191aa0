import { VideoSample } from 'mediabunny'
import type { Composition, Feed } from '@/core/compose/composition'
import type { PanelId, RecordingId } from '@/core/model/ids'
import type { BackEnd } from '@/core/output/backEnd'
import { hasGpu } from '../gpu/gpu'
import { PictureMaker } from './pictureMaker'

/** The size of the picture that is measured with, and of the frame that it is made from. */
const SIZE = { width: 720, height: 1280 }
const FRAME = { width: 1280, height: 720 }

/** Drawn so often; the first ones, which set everything up, do not count. */
const ROUNDS = 9
const TO_WARM_UP = 3

const FEED: Feed = { recordingId: 'measured' as RecordingId, micros: 0, lane: 'measured' }

/** Two bands, as most highlights have. */
const COMPOSITION: Composition = {
  size: SIZE,
  steps: [
    { kind: 'colour', colour: '#101010' },
    {
      kind: 'picture',
      panelId: 'a' as PanelId,
      feed: FEED,
      crop: { x: 900.5, y: 400, width: 360, height: 202.5 },
      dest: { x: 0, y: 0, width: 720, height: 405 },
      orientation: { turn: 0, flip: false },
      outline: null,
      opacity: 1,
    },
    {
      kind: 'picture',
      panelId: 'b' as PanelId,
      feed: FEED,
      crop: { x: 200, y: 20.5, width: 560, height: 680 },
      dest: { x: 0, y: 405, width: 720, height: 875 },
      orientation: { turn: 0, flip: false },
      outline: null,
      opacity: 1,
    },
  ],
}

/**
 * How long a picture takes from a decoded frame to one for the encoder, in ms: the quickest of some, since whatever
 * else the machine does only adds to it. Null where the back end cannot be used here.
 */
export async function measureBackEnd(backEnd: BackEnd): Promise<number | null> {
  // What does a GPU's work on the processor is never quicker.
  if (backEnd === 'gpu' && !hasGpu()) return null
  const maker = await PictureMaker.start(backEnd)
  if (backEnd !== 'canvas' && !maker.paints) return null
  const surface = maker.surface(SIZE)
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const frame = noise(round)
    const started = performance.now()
    const [sampleAt] = await maker.draw([{ surface, composition: COMPOSITION }], {
      frameOf: () => frame,
      imageOf: () => null,
      figureAt: () => [],
    })
    const made = await sampleAt?.({ timestamp: 0, duration: 0.04 })
    times.push(performance.now() - started)
    made?.close()
    frame.close()
  }
  maker.giveBack(surface)
  return Math.min(...times.slice(TO_WARM_UP))
}

/** A frame as decoders give it, with something in it. */
function noise(seed: number): VideoSample {
  const { width, height } = FRAME
  const bytes = new Uint8Array((width * height * 3) / 2)
  for (let i = 0; i < bytes.length; i += 1) bytes[i] = 16 + ((((i + seed) * 2654435761) >>> 24) % 220)
  const frame = new VideoFrame(bytes, {
    format: 'I420',
    codedWidth: width,
    codedHeight: height,
    timestamp: 0,
    colorSpace: { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false },
  })
  return new VideoSample(frame, { timestamp: 0, duration: 0.04 })
}
