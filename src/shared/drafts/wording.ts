import { formatDuration } from '@/ui/format'

/** What the interface says about drafts, each sentence once. */
export const wording = {
  nameOf: (recording: string, at: string) => `${recording}, ${at}`,
  takeOutDeadAir: 'Take out dead air',
  writeWords: 'Write what is said',
  putRight: 'Fix all',
  makeDrafts: 'Make drafts',
  makeDraftsButton: 'Make drafts…',
  whatDraftsAre:
    'Brimble looks through the recordings, takes the liveliest moments, and lays each out as a highlight for you to keep, change or drop. Nothing is rendered.',
  recordings: 'Recordings',
  all: 'Choose all',
  none: 'Choose none',
  howMany: 'Drafts, at most',
  longest: 'Longest each',
  longestTogether: 'All together, at most',
  outlets: 'Outlets',
  recipe: 'Recipe',
  whatSuits: 'What suits each',
  asTheRecipe: 'The recipe says which shapes.',
  takesOutDeadAir: 'Take out long pauses',
  writesWords: 'Write captions',
  cancel: 'Cancel',
  noOutlets: 'Outlets are set up on the Rack. Without one, drafts are tall.',
  notKept: 'The disk is full: nothing could be noted.',
  looking: (name: string, secondsLeft: number | null) => `Looking through “${name}”${left(secondsLeft)}`,
  making: (done: number, of: number, secondsLeft: number | null) =>
    `Making draft ${done + 1} of ${of}${left(secondsLeft)}`,
  waiting: 'Drafts are being made in another tab, or will be in a moment',
  share: 'Drafts made',
  stop: 'Stop',
  made: (count: number, kept: number) =>
    `${count} ${count === 1 ? 'draft' : 'drafts'} made${kept > 0 ? `, ${kept} kept` : ''}.`,
  madeNone: 'Nothing lively enough was found for a draft.',
  stopped: (made: number, of: number) => `Stopped after ${made} of ${of} drafts.`,
  stoppedBecause: (problem: string) => `Drafts stopped: ${problem}.`,
  unread: (count: number) => ` ${count} ${count === 1 ? 'recording' : 'recordings'} could not be read.`,
  takeBack: 'Undo all',
  close: 'Close',
  takenBack: (count: number) => `${count} ${count === 1 ? 'draft is' : 'drafts are'} in the bin.`,
}

function left(seconds: number | null): string {
  return seconds === null ? '' : `, ${formatDuration(seconds)} left`
}
