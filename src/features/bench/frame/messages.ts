import { assertNever } from '@/core/assert'
import type { Found } from '@/core/detect/regions/propose'

/** What was recognised, in words. */
export function foundWords(found: Found): string {
  switch (found) {
    case 'inset':
      return 'a moving picture laid over another'
    case 'tile':
      return 'one of the pictures side by side'
    case 'slides':
      return 'rests, then changes all at once'
    case 'content':
      return 'what lies inside the bars, or behind the rest'
    default:
      return assertNever(found)
  }
}
