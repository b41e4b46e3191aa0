import { carriedAlong, type Rect } from '../geometry/rect'
import { showsSomebody, WHOLE_FRAME, type Region, type Role } from '../model/region'

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

/** What is read: all of it matters. */
const isRead = (role: Role): boolean => ['slides', 'hud', 'chat', 'logo'].includes(role)

/** What of a region must be seen, by what it shows and what somebody set as its focus. */
export function needsOf({ role, bounds, focus }: Pick<Region, 'role' | 'bounds' | 'focus'>): Need[] {
  if (isRead(role)) return [{ rect: bounds, matters: READ_MATTERS }]
  const rest = { rect: bounds, matters: REST_MATTERS }
  if (showsSomebody(role))
    return [rest, { rect: focus ?? carriedAlong(HEAD, WHOLE_FRAME, bounds), matters: HEAD_MATTERS }]
  return focus ? [rest, { rect: focus, matters: ACTION_MATTERS }] : [rest]
}
