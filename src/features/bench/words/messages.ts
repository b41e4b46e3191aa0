import type { CaptionProblem, CaptionsRead } from '@/core/interchange/captionFile'

const PROBLEMS: Record<CaptionProblem['reason'], string> = {
  'bad-time': 'this is no time; the caption was left out',
  'ends-before-start': 'ends before it starts; the caption was left out',
  'out-of-order': 'comes before the one above it; it was put in its place',
  overlaps: 'begins before the one above it has ended; both were kept',
  'too-long': 'a caption is longer than can be kept, and was cut short',
}

export function captionProblemMessage({ line, reason }: CaptionProblem): string {
  return line > 0 ? `Line ${line}: ${PROBLEMS[reason]}.` : `${PROBLEMS[reason].charAt(0).toUpperCase()}${PROBLEMS[reason].slice(1)}.`
}

export function unreadableMessage(fileName: string, reason: Extract<CaptionsRead, { ok: false }>['reason']): string {
  switch (reason) {
    case 'too-large':
      return `“${fileName}” is too large for captions. Nothing was changed.`
    case 'too-many':
      return `“${fileName}” has more than 20,000 captions. Nothing was changed.`
    case 'not-captions':
      return `There are no captions in “${fileName}”: Brimble reads WebVTT and SubRip. Nothing was changed.`
  }
}
