import type { Rect } from '../geometry/rect'
import type { Region, Role } from '../model/region'

/** A part of a region and how much it matters that it is seen: 0 for what may be covered, 1 for a head. */
export interface Need {
  /** Fractions of the frame. */
  rect: Rect
  matters: number
}

/** A head, where nobody has said where it is: the shares of a camera's picture that it is in, with room about it. */
const HEAD: Rect = { x: 0.18, y: 0.06, width: 0.64, height: 0.7 }

const HEAD_MATTERS = 1
const READ_MATTERS = 0.8
const ACTION_MATTERS = 0.4
/** Shoulders, a room, a sky: something lies better over it than over what is looked at. */
const REST_MATTERS = 0.06

/** People: what must be seen of them is the head. */
export const isPerson = (role: Role): boolean => role === 'face' || role === 'speaker'

/** What is read: all of it matters. */
export const isRead = (role: Role): boolean => ['slides', 'hud', 'chat', 'logo'].includes(role)

/** What of a region must be seen, by what it shows and what somebody set as its focus. */
export function needsOf({ role, bounds, focus }: Pick<Region, 'role' | 'bounds' | 'focus'>): Need[] {
  if (isRead(role)) return [{ rect: bounds, matters: READ_MATTERS }]
  const rest = { rect: bounds, matters: REST_MATTERS }
  if (isPerson(role)) return [rest, { rect: focus ?? within(bounds, HEAD), matters: HEAD_MATTERS }]
  return focus ? [rest, { rect: focus, matters: ACTION_MATTERS }] : [rest]
}

const within = (bounds: Rect, share: Rect): Rect => ({
  x: bounds.x + share.x * bounds.width,
  y: bounds.y + share.y * bounds.height,
  width: share.width * bounds.width,
  height: share.height * bounds.height,
})
