import { z } from 'zod'
import { colour } from './colour'
import { imageFileId } from './ids'
import { role } from './region'

const darken = z.number().min(0).max(1).default(0)

/**
 * What lies behind all panels. *Blur* is a blurred copy of a role's region that fills the canvas: `strength` 0..1;
 * *mirror* is the region shown whole, with mirrored copies around it. `darken` 0..1 lays black over either.
 */
export const backdrop = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('colour'), colour }),
  z.object({
    kind: z.literal('gradient'),
    from: colour,
    to: colour,
    /** Degrees clockwise from straight down. */ degrees: z.number().min(0).max(360).default(0),
  }),
  z.object({ kind: z.literal('blur'), role, strength: z.number().min(0).max(1).default(0.5), darken }),
  z.object({ kind: z.literal('mirror'), role, darken }),
  z.object({ kind: z.literal('image'), imageFileId, darken }),
])

export type Backdrop = z.infer<typeof backdrop>
export type BackdropKind = Backdrop['kind']

/** The near-black mat that shows where nothing else does. */
export const DEFAULT_BACKDROP: Backdrop = { kind: 'colour', colour: '#16181a' }
