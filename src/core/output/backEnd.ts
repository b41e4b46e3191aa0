import { z } from 'zod'

/**
 * What draws the pictures of a render: the browser's *canvas*; or *planes* or the *gpu*, which hand what they cannot
 * do to the canvas, frame by frame.
 */
export const backEnd = z.enum(['canvas', 'planes', 'gpu'])
export type BackEnd = z.infer<typeof backEnd>

/**
 * How long each takes for a picture on one machine, in ms; null for one that cannot be used there. `agent`: the
 * browser that was measured.
 */
export const measuredBackEnds = z.object({
  canvasMs: z.number().nonnegative(),
  planesMs: z.number().nonnegative().nullable(),
  gpuMs: z.number().nonnegative().nullable(),
  agent: z.string().max(1000),
})
export type MeasuredBackEnds = z.infer<typeof measuredBackEnds>

/**
 * The quickest, unless the person has said which. Where they are about as quick, the GPU, then planes: they leave
 * more to the encoder.
 */
export function chosenBackEnd(
  wish: BackEnd | 'measured',
  { canvasMs, planesMs, gpuMs }: Omit<MeasuredBackEnds, 'agent'>,
): BackEnd {
  if (wish !== 'measured') return wish === 'planes' && planesMs === null ? 'canvas' : wish
  const quickest = Math.min(canvasMs, planesMs ?? Infinity, gpuMs ?? Infinity)
  const isQuick = (ms: number | null) => ms !== null && ms <= quickest * ABOUT
  if (isQuick(gpuMs)) return 'gpu'
  return isQuick(planesMs) ? 'planes' : 'canvas'
}

/** So much longer is about as quick. */
const ABOUT = 1.1
