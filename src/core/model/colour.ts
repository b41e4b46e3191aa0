import { z } from 'zod'

/** An opaque colour as `#rrggbb`. */
export const colour = z.string().regex(/^#[0-9a-f]{6}$/i)
