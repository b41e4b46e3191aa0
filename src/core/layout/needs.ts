import { areaOf, carriedAlong, intersection, type Rect } from '../geometry/rect'
import { showsSomebody, WHOLE_FRAME, type Region, type Role } from '../model/region'

/** What a part of a region is: somebody's head, what is read, where the action is, or the rest. */
export type NeedKind = 'head' | 'read' | 'action' | 'rest'

/** A part of a region. */
export interface Need {
  kind: NeedKind
  /** Fractions of the frame. */
  rect: Rect
  /** Nobody has said or seen where it is: it is where it mostly is. */
  guessed?: boolean
}

/** A head, where nobody has said where it is: the shares of a camera's picture that it is in, with room about it. */
const HEAD: Rect = { x: 0.28, y: 0.12, width: 0.44, height: 0.62 }

/**
 * How much it matters that each is seen: 0 for what may be covered, 1 for a head. Something lies better over shoulders,
 * a room or a sky than over what is looked at.
 */
export const MATTERS: Readonly<Record<NeedKind, number>> = { head: 1, read: 0.9, action: 0.75, rest: 0.06 }

/** What is read: all of it matters, it is never cropped, and it must be large enough. */
export const isRead = (role: Role): boolean => ['slides', 'hud', 'chat', 'logo'].includes(role)

/** What of a region must be seen: by what it shows, what somebody set as its focus, and where a head was seen. */
export function needsOf({ role, bounds, focus, head }: Pick<Region, 'role' | 'bounds' | 'focus' | 'head'>): Need[] {
  const seen = headWithin(bounds, head)
  if (isRead(role)) return [{ kind: 'read', rect: bounds }]
  const rest: Need = { kind: 'rest', rect: bounds }
  if (showsSomebody(role)) {
    const known = focus ?? seen
    if (known) return [rest, { kind: 'head', rect: known }]
    return [rest, { kind: 'head', rect: carriedAlong(HEAD, WHOLE_FRAME, bounds), guessed: true }]
  }
  return [
    rest,
    ...(seen ? [{ kind: 'head' as const, rect: seen }] : []),
    ...(focus ? [{ kind: 'action' as const, rect: focus }] : []),
  ]
}

/** A head as far as it is in the region; one that is mostly elsewhere belongs to somebody else. */
function headWithin(bounds: Rect, head: Rect | undefined): Rect | null {
  const inside = head ? intersection(head, bounds) : null
  return head && inside && areaOf(inside) >= areaOf(head) / 2 ? inside : null
}
