import { assertNever } from '@/core/assert'
import type { RegionProposal } from '@/core/detect/regions/propose'

/** What was recognised, in words. */
export function foundWords({ found, role }: Pick<RegionProposal, 'found' | 'role'>): string {
  switch (found) {
    case 'inset':
      return 'a moving picture laid over another'
    case 'tile':
      return 'one of the pictures side by side'
    case 'slides':
      return 'rests, then changes all at once'
    case 'content':
      return role === 'whole' ? 'the picture inside its bars' : 'the largest part beside the rest'
    case 'display':
      return 'a display that rests while the picture around it moves'
    case 'moving-part':
      return 'the one part of the picture that moves'
    default:
      return assertNever(found)
  }
}
