import { z } from 'zod'

/** A word to find things by: a game, a client. */
export const tag = z.string().trim().min(1).max(40)
