import type { Recogniser } from '@/media/speech/recogniser'
import type { FolderProblem } from './useWhisperFolder'
import type { CaptionProblem, CaptionsRead } from '@/core/interchange/captionFile'

const PROBLEMS: Record<CaptionProblem['reason'], string> = {
  'bad-time': 'this is no time; the caption was left out',
  'ends-before-start': 'ends before it starts; the caption was left out',
  'out-of-order': 'comes before the one above it; it was put in its place',
  overlaps: 'begins before the one above it has ended; both were kept',
  'too-long': 'a caption is longer than can be kept, and was cut short',
}

export function captionProblemMessage({ line, reason }: CaptionProblem): string {
  return line > 0
    ? `Line ${line}: ${PROBLEMS[reason]}.`
    : `${PROBLEMS[reason].charAt(0).toUpperCase()}${PROBLEMS[reason].slice(1)}.`
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

/** What a recogniser is asked for by; that one is simulated is said here, and so wherever it is offered. */
export function recogniserLabel({ id, simulated }: Recogniser): string {
  if (id === 'blanks') return 'Empty lines where somebody speaks'
  return simulated ? 'Write what is said (simulated, for demo footage)' : 'Write what is said'
}

export function recognisedMessage({ id, simulated }: Recogniser, lines: number): string {
  if (id === 'blanks') return `${lines} ${lines === 1 ? 'stretch' : 'stretches'} of speech found: write what is said.`
  return `${lines} ${lines === 1 ? 'line' : 'lines'} written${simulated ? ' by the simulated recogniser, from the text that ships with the demo footage' : ''}.`
}

/** Why a chosen folder cannot be used. */
export function folderProblemMessage(problem: FolderProblem): string {
  switch (problem.reason) {
    case 'missing':
      return `This is no Whisper model in ONNX form: it lacks ${problem.missing.join(', ')}.`
    case 'unreadable':
      return `“${problem.path}” in this folder cannot be read.`
    case 'another-kind':
      return 'This folder holds another kind of model.'
    case 'gone':
      return 'The folder is gone, or may not be read any more. Choose it again.'
    case 'no-room':
      return 'There is no room in the browser for a copy of this model.'
    case 'storage-failed':
      return 'The browser did not keep this folder. Try again.'
  }
}

/** A language's name in the browser's own language; the code where it has none. */
export function languageName(code: string): string {
  try {
    return new Intl.DisplayNames(undefined, { type: 'language' }).of(code) ?? code
  } catch {
    return code
  }
}
