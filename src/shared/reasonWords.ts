import type { Reason } from '@/core/model/spotting'

/** Why a moment is lively, in words. */
export function reasonWords(reasons: readonly Reason[]): string {
  return reasons.length > 0 ? reasons.map(wordsOf).join(', ') : 'a little livelier than around it'
}

function wordsOf(reason: Reason): string {
  switch (reason.kind) {
    case 'loud':
      return `${Math.round(reason.decibelsOver)} dB louder than around it`
    case 'motion':
      return `${reason.timesUsual.toFixed(1)} times the usual motion`
    case 'speech-burst':
      return 'a burst of speech'
  }
}
