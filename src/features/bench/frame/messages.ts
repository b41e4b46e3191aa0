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
    default:
      return assertNever(found)
  }
}
