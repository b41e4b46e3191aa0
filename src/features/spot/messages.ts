import type { MarkProblem } from '@/core/interchange/mark'
import type { Moment, Reason } from '@/core/model/spotting'

function reasonWords(reason: Reason): string {
  switch (reason.kind) {
    case 'loud':
      return `${Math.round(reason.decibelsOver)} dB louder than around it`
    case 'motion':
      return `${reason.timesUsual.toFixed(1)} times the usual motion`
    case 'speech-burst':
      return 'a burst of speech'
  }
}

/** Why a moment is in the list. */
export function whyHere({ source, reasons, label }: Moment): string {
  if (label !== '') return label
  if (source === 'marked') return 'your mark'
  if (source === 'imported') return 'a mark that was read'
  return reasons.length > 0 ? reasons.map(reasonWords).join(', ') : 'a little livelier than around it'
}

/** What was wrong with a line of a file of marks. */
export function markProblemMessage({ line, reason, text }: MarkProblem): string {
  const where = line > 0 ? `Line ${line}: ` : ''
  switch (reason) {
    case 'too-large':
      return 'The file is larger than any list of marks (5 MB). Nothing was read.'
    case 'no-time':
      return `${where}there is no time in “${text}”.`
    case 'bad-time':
      return `${where}a time in “${text}” cannot be read. Times look like 83.5, 1:23.5 or 01:02:03:12.`
    case 'ends-before-start':
      return `${where}“${text}” ends before it starts.`
    case 'beyond-recording':
      return `${where}“${text}” lies beyond the end of the recording.`
    case 'not-this-format':
      return `${where}“${text}” is not understood.`
    case 'too-many':
      return `${where}more than 2000 marks; the rest was left out.`
  }
}
