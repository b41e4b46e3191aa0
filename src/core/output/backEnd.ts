import { z } from 'zod'

/** What draws the pictures of a render: the browser's *canvas*, or *planes*, which hands what it cannot do to the canvas, frame by frame. */
export const backEnd = z.enum(['canvas', 'planes'])
export type BackEnd = z.infer<typeof backEnd>

/** How long each takes for a picture on one machine, in ms; null for planes where they cannot be used. `agent`: the browser that was measured. */
export const measuredBackEnds = z.object({ canvasMs: z.number().nonnegative(), planesMs: z.number().nonnegative().nullable(), agent: z.string().max(1000) })
export type MeasuredBackEnds = z.infer<typeof measuredBackEnds>

/** The quicker one, unless the person has said which. Where they are about as quick, planes: they leave more to the encoder. */
export function chosenBackEnd(wish: BackEnd | 'measured', { canvasMs, planesMs }: MeasuredBackEnds): BackEnd {
  if (planesMs === null) return 'canvas'
  if (wish !== 'measured') return wish
  return planesMs <= canvasMs * 1.1 ? 'planes' : 'canvas'
}
