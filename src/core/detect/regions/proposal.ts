import type { Rect } from '../../geometry/rect'
import type { Role } from '../../model/region'

/**
 * What was recognised: a picture laid over another, one of several pictures side by side, slides, what is left inside
 * black bars, a display laid over a game, the one part that moves, somebody who fills the picture, somebody whose
 * picture has no edges, or text that does not rest.
 */
export type RegionKind =
  'inset' | 'tile' | 'slides' | 'content' | 'display' | 'moving-part' | 'camera' | 'person' | 'text'

/** A place in the frame that probably is a region: whole pixels of the frame that was looked at. */
export interface RegionProposal {
  found: RegionKind
  role: Role
  rect: Rect
  /** What somebody called it before accepting it. */
  name?: string
  /** 0..1 */
  confidence: number
}

/** Surer than this, a proposal may be taken with others without being looked at. */
export const isSure = ({ confidence }: RegionProposal): boolean => confidence >= 0.6
