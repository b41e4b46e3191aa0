import type { MarkProblem } from '@/core/interchange/mark'
import type { Moment } from '@/core/model/spotting'
import { reasonWords } from '@/shared/reasonWords'

/** Why a moment is in the list. */
export function whyHere({ source, reasons, label }: Moment): string {
  if (label !== '') return label
  if (source === 'marked') return 'your mark'
  if (source === 'imported') return 'a mark that was read'
  return reasonWords(reasons)
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

/** What the interface says in this room, each sentence once. */
export const wording = {
  addMoments: (count: number) => `Add ${count} moments`,
  nextMomentPlayedFromIts: 'Next moment, played from its start',
  theMomentBefore: 'The moment before',
  keepTheMomentThatIs: 'Keep the selected moment',
  dropIt: 'Drop it',
  setItsInPointHere: 'Set its in point here',
  setItsOutPointHere: 'Set its out point here',
  markAMomentWhatHappened: 'Mark a moment: what happened a little before now',
  magnifyMore: 'Zoom in',
  magnifyLess: 'Zoom out',
  magnifyTheStretchBefore: 'Move the zoomed part back',
  magnifyTheStretchAfter: 'Move the zoomed part on',
  goToTheStart: 'Go to the start',
  goToTheEnd: 'Go to the end',
  cutTheMomentsThatAre: 'Cut the moments that are kept into highlights',
  pointOfTheMoment: (which: string) => `${which === 'in' ? 'In' : 'Out'} point of the moment`,
  wholeRecording: 'Whole recording',
  levelAndLiveliness: 'level and liveliness',
  magnified: 'Magnified',
  theWholeRecordingLevelLiveliness: 'The whole recording: level, liveliness, moments',
  theMagnifiedStretchPicturesLevel: 'The magnified stretch: pictures, level, moments, cuts between shots',
  webVTTChapters: 'WebVTT chapters',
  edlCmx3600: 'EDL (CMX 3600)',
  thereIsNothingNewIn: (fileName: string) => `There is nothing new in “${fileName}”.`,
  thereWasNoRoomFor: (noRoom: number, list: string) =>
    `${noRoom} of its marks were left out: a recording has ${list} moments at most.`,
  marks: 'Marks',
  readCsvWebvttOrEdl: 'Read CSV, WebVTT or EDL…',
  noChaptersInTheFile: 'No chapters in the file',
  takeChaptersOfTheFile: (count: number) => `Take ${count} chapters of the file`,
  writeAs: (name: string) => `Write as ${name}`,
  readFromNot: (taken: number, fileName: string, count: number) =>
    `${taken} ${taken === 1 ? 'mark' : 'marks'} read from “${fileName}”; ${count} ${count === 1 ? 'line' : 'lines'} not`,
  close: 'Close',
  loudness: 'Loudness',
  louderThanTheMinuteAround: 'louder than the minute around it',
  motion: 'Motion',
  moreChangeInThePicture: 'more change in the picture than usual',
  speech: 'Speech',
  moreTalkThanAroundIt: 'more talk than around it',
  howTheyAreFound: 'Detection settings',
  howMomentsAreFound: 'Detection settings',
  weightOf: (name: string) => `Weight of ${name}`,
  weight: (key: string) => `weight ${key}`,
  noMomentLongerThan: 'No moment longer than',
  proposeAtMost: 'Propose at most',
  mMarksWhatHappenedBefore: 'M marks what happened before',
  moments: 'Moments',
  proposed: (proposed: number) => `${proposed} proposed`,
  yours: (yours: number) => `, ${yours} yours`,
  inOrderOfTime: 'Sort: time',
  liveliestFirst: 'Sort: liveliness',
  nothingHereIsLivelierThan: 'Nothing here is livelier than the rest. Play, and press M when something happens.',
  momentsAppearHereWhileThe:
    'Moments appear here while the recording is analysed. You can also play, and press M when something happens.',
  keep: 'Keep',
  drop: 'Drop',
  undecided: 'undecided',
  percent: (share: number) => `${Math.round(100 * share)} %`,
  kept: 'Kept',
  dropped: 'Dropped',
  cut: 'Cut',
  to: (time: string, time2: string, stateword: string) => `${time} to ${time2}, ${stateword}`,
  howLivelyOf1: 'Liveliness',
  yoursLowercase: 'yours',
  open: 'Open',
  recording: 'recording',
  thereIsNoSuchRecording: 'There is no such recording in this browser. It may have been added in another one.',
  canNoLongerBeRead: (fileName: string) =>
    `“${fileName}” can no longer be read. Check that the file still opens elsewhere.`,
  onTheShelf: (count: number, one: boolean) => `${count} ${one ? 'highlight is' : 'highlights are'} on the Shelf.`,
  openIt: 'Open it',
  goToTheShelf: 'Go to the Shelf',
  isOnTheShelf: (name: string) => `“${name}” is on the Shelf.`,
  keys: 'Keys',
  joinIntoOne: (count: number) => `Join ${count} into one`,
  cutHighlights: 'Cut highlights',
  cutOfCount: (count: number) => `Cut ${count} ${count === 1 ? 'highlight' : 'highlights'}`,
  couldNotBeLookedThrough: (detail: string) => `The analysis stopped: ${detail}`,
  tryAgain: 'Try again',
  pausedAt: 'analysis paused at',
  lookedThrough: 'analysed',
  lookedThroughCapital: 'Analysed',
  goOnLookingThrough: 'Resume analysis',
  pauseLookingThrough: 'Pause analysis',
  theMomentsOfThisRecording:
    'The moments of this recording were changed in another tab. Reload to see them; what you decide here is not saved.',
  theBrowsersStorageIsFull:
    'The browser’s storage is full: what you decide is only in this tab. Free some space; saving is tried again.',
  whatYouDecidedCouldNot: 'What you decided could not be saved yet; saving is tried again.',
  reload: 'Reload',
  theRecordingsPicture: 'The recording’s picture',
  player: 'Player',
  nextMoment: 'next moment',
  inHere: 'in here',
  outHere: 'out here',
  allKeys: 'All keys',
}
