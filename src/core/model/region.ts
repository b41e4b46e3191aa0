import { z } from 'zod'
import type { Rect } from '../geometry/rect'
import { regionId, type RegionId } from './ids'
import { outline, PLAIN_OUTLINE } from './outline'
import { title } from './record'

/** What a region shows. The user's own roles are any other short word. */
export const STANDARD_ROLES = ['face', 'game', 'speaker', 'slides', 'chat', 'hud', 'logo', 'whole'] as const

export const role = z.string().regex(/^[\p{L}\p{N}][\p{L}\p{N} -]{0,29}$/u)
export type Role = z.infer<typeof role>

/** A rectangle inside the frame, as fractions 0..1 of its display-oriented size. */
export const frameRect = z
  .object({
    x: z.number().min(0).max(1),
    y: z.number().min(0).max(1),
    width: z.number().positive().max(1),
    height: z.number().positive().max(1),
  })
  .refine((r) => r.x + r.width <= 1 + 1e-6 && r.y + r.height <= 1 + 1e-6, 'reaches beyond the frame')

/** A named place in a recording's frame. */
export const region = z.object({
  id: regionId,
  role,
  name: title,
  /** Nothing outside is ever shown. */
  bounds: frameRect,
  /** Nothing inside is ever cut, where that can be helped; null: only the middle of `bounds` matters. */
  focus: frameRect.nullable().default(null),
  /** Where a head was seen in it, over all that was looked at; absent: nobody looked, or there was none. */
  head: frameRect.optional(),
  /** Brimble found it by itself, and nobody has touched it since; absent: somebody said so. */
  isGuess: z.literal(true).optional(),
  /** Cannot be moved, resized or removed by accident. */
  locked: z.boolean().default(false),
  /** Its outline is not drawn; panels show it all the same. */
  hidden: z.boolean().default(false),
  /** Width over height that resizing keeps, in pixels; null: free. */
  proportion: z.number().min(0.05).max(20).nullable().default(null),
  /** Form, border and shadow wherever a panel shows it. */
  outline: outline.default(PLAIN_OUTLINE),
})

export type Region = z.infer<typeof region>

/** Roles that layouts have places for people by. */
export const isPerson = (role: Role): boolean => role === 'face' || role === 'speaker'

/** Roles whose region is somebody's own picture. */
export const showsSomebody = (role: Role): boolean => isPerson(role) || role === 'guest'

/** A region by what makes it one; the rest as it is for a new one. */
export function newRegion(id: RegionId, role: Role, name: string, bounds: Rect): Region {
  return { id, role, name, bounds, focus: null, locked: false, hidden: false, proportion: null, outline: PLAIN_OUTLINE }
}

/** Regions that somebody has said are right as they are. */
export function confirmed(regions: readonly Region[]): Region[] {
  return regions.map((region) => {
    const right = { ...region }
    delete right.isGuess
    return right
  })
}

export const WHOLE_FRAME: Rect = { x: 0, y: 0, width: 1, height: 1 }

/** How a region is told from the others of its setup: by its role where it alone has it, else by its name. */
export function toldApart(
  regions: readonly Pick<Region, 'id' | 'role' | 'name'>[],
  { id, role, name }: Pick<Region, 'id' | 'role' | 'name'>,
): string {
  return regions.some((r) => r.role === role && r.id !== id) ? name : role
}

/** What a region is called to begin with. */
export function nameForRole(role: string): string {
  if (role === 'hud') return 'HUD'
  return role.slice(0, 1).toUpperCase() + role.slice(1)
}
