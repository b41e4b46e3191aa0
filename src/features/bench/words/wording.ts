import type { Recogniser } from '@/media/speech/recogniser'
import type { FolderProblem } from './useWhisperFolder'
import type { CaptionProblem, CaptionsRead } from '@/core/interchange/captionFile'

const PROBLEMS: Record<CaptionProblem['reason'], string> = {
  'bad-time': 'not a valid time; the caption was left out',
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
  if (id === 'blanks') return 'Blank captions at speech'
  if (id === 'pocketsphinx') return 'Draft by PocketSphinx (English)'
  return simulated ? 'Transcribe (simulated, for demo footage)' : 'Transcribe'
}

export function recognisedMessage({ id, simulated }: Recogniser, lines: number): string {
  if (id === 'blanks') return `${lines} blank ${lines === 1 ? 'caption' : 'captions'} at speech: type what is said.`
  if (id === 'pocketsphinx')
    return `${lines} ${lines === 1 ? 'line' : 'lines'} drafted. PocketSphinx mishears much: read them through.`
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

/** What the interface says in this room, each sentence once. */
export const wording = {
  halfBold: 'half bold',
  isNotAFontThat: (name: string) =>
    `“${name}” is not a font that can be drawn with: TrueType, OpenType, WOFF and WOFF2 are. Nothing was changed.`,
  font: 'Font',
  isNotHere: (font: string) => `“${font}” is not here`,
  weight: 'Weight',
  ownFont: 'Own font…',
  aFontFile: 'A font file',
  byTheColourOfThe: 'coloured words',
  byANameBeforeThe: 'name before the words',
  notTold: 'none',
  speakers: 'Speakers',
  whoSpeaksIsTold: 'Speaker labels',
  howSpeakersAreTold: 'How speakers are labelled',
  colourOf: (name: string) => `Colour of ${name}`,
  nameOf: (name: string) => `Name of ${name}`,
  remove: (name: string) => `Remove ${name}`,
  addSpeaker: 'Add speaker',
  atTheStart: 'at the start',
  inTheMiddle: 'in the middle',
  atTheEnd: 'at the end',
  atTheTop: 'at the top',
  atTheBottom: 'at the bottom',
  closeToThePicture: 'close to the picture',
  atOnce: 'at once',
  fadingIn: 'fading in',
  withABounce: 'with a bounce',
  notMarked: 'not marked',
  inAColour: 'in a colour',
  inABox: 'in a box',
  colourOfThe: (label: string) => `Colour of the ${label}`,
  set: 'Set',
  inItsArea: 'Position',
  comesIn: 'Animation',
  theSpokenWord: 'Spoken word',
  letters: 'Letters',
  theSpokenWordsColour: 'Spoken word colour',
  ring: 'Stroke',
  shadow: 'Shadow',
  ground: 'Background',
  oneGroundForAllLines: 'One background for all lines',
  capitals: 'Capitals',
  lettersOfTheShorterSide: 'Text size, of the shorter side',
  linesAtMost: 'Lines at most',
  words: 'Words',
  title: 'Title',
  titleOfI: (i: number) => `Title ${i + 1}`,
  addTitle: 'Add title',
  addAnotherTitle: 'Add another title',
  writeTheTitle: 'Write the title',
  style: (name: string) => `${name} style`,
  titleStyle: 'Title style',
  moreAboutTheLookOf: (name: string) => `More about the look of ${name}`,
  lookOfTheTitle: 'Look of the title',
  whenTheTitleIsOn: 'When the title is on',
  showCaptions: 'Show captions',
  hideCaptions: 'Hide captions',
  captionsOnThePictureThere: 'Captions on the picture (there are none yet)',
  captionsOnThePicture: 'Captions on the picture',
  captionStyle: 'Caption style',
  moreAboutTheLookOfCaptions: 'More about the look of captions',
  lookOfCaptions: 'Look of captions',
  less: 'Less',
  more: 'More',
  saidBy: (name: string) => `Said by ${name}`,
  saidByNobodyInParticular: 'No speaker',
  altWToChoose: (name: undefined | string) => `${name ?? 'No speaker'} (Alt + W to choose)`,
  nobodyInParticular: 'No speaker',
  somebodyNew: 'New speaker',
  caption: (name: string) => `Caption, ${name}`,
  captionCapital: 'Caption',
  whatIsSaidHere: 'What is said here?',
  findAndReplaceInCaptions: 'Find and replace in captions',
  find: 'Find',
  putInItsPlace: 'Replace with',
  wholeWords: 'Whole words',
  whereItStands: 'Matches',
  close: 'Close',
  replace: (count: number) => `Replace ${count > 0 ? count : ''}`,
  nothingLookedForYet: 'Type the words to find.',
  nowhere: 'No matches.',
  nothingLooksDoubtful: 'Nothing looks doubtful',
  toLookAt: (count: number) => `${count} ${count === 1 ? 'place' : 'places'} to look at`,
  noWordIsSaidTwice:
    'No word is said twice in a row, none is nearly but not quite one that is said often, and every line can be read in its time.',
  placesToLookAt: 'Places to look at',
  done: 'Done',
  twiceInARow: (text: string) => `“${text}” twice in a row`,
  or: (text: string, usual: string) => `“${text}”, or “${usual}”?`,
  notSure: (text: string) => `“${text}” may have been misheard`,
  looksGarbled: (text: string) => `“${text}” looks garbled`,
  nothingIsWrittenHereYet: 'Nothing is written here yet',
  charactersASecondTooFast: (perSecond: number) => `${perSecond} characters a second: too fast to read`,
  pasteCaptions: 'Paste captions',
  whatIsSaidIn: (name: string) => `What is said in “${name}”`,
  pasteTheTextOfWhat:
    'Paste the text of what this highlight plays. It is lined up with where somebody is heard speaking; what does not fit is moved on the Sheet.',
  text: 'Text',
  nobodyIsHeardSpeakingHere: 'No speech was heard here, so there is nothing to line it up with.',
  cancel: 'Cancel',
  listening: 'Listening…',
  lineUp: 'Line up',
  wordsTimedSoFar: 'Words timed so far',
  timeWords: 'Time words by sound',
  timingWords: 'Listening for each word',
  timedWords: (heard: number, all: number) => `${heard} of ${all} captions have the times of their words now.`,
  noWordWasHeard: 'No word of these captions was heard where they stand. Nothing was changed.',
  timingFailed: (detail: string) => `The words could not be timed: ${detail}`,
  onlyEnglish: 'Words are timed by sound in English only; these captions keep their times.',
  wordsHeard: (heard: number, all: number) =>
    heard === all
      ? 'Every word has the time at which it is heard.'
      : `${heard} of ${all} words were heard and have their times; the others are lined up by pauses.`,
  linedUpOnly: {
    'other-language': 'Lined up by pauses: words are timed one by one in English only.',
    failed: 'Lined up by pauses: the words could not be timed one by one.',
  },
  nobodyIsHeardSpeakingIn: (name: string) => `Nobody is heard speaking in “${name}” here.`,
  theModelMadeOutNo: 'The model heard no words here. The captions are unchanged.',
  writeWhatIsSaid: 'Transcribe',
  writeWhatIsSaidIn: (name: string) => `Transcribe in “${name}”`,
  brimbleBringsNoSpeechModel:
    'Brimble brings no speech model of its own. It runs a Whisper model in ONNX form out of a folder on this machine: its .json files, and ',
  and: ' and ',
  inAFolder: ', in a folder ',
  orBesideThemNothingIs: ' or beside them. Nothing is sent anywhere.',
  encoderModel: 'encoder_model',
  decoderModelMerged: 'decoder_model_merged',
  onnx: 'onnx',
  folder: (name: string) => `Folder “${name}”`,
  noFolderChosenYet: 'No folder chosen yet',
  anotherFolder: 'Another folder…',
  chooseAFolder: 'Choose a folder…',
  forgetIt: 'Forget it',
  theFolderItselfStaysAs: 'The folder itself stays as it is',
  languageSpoken: 'Language spoken',
  writtenDownSoFar: 'Transcribed so far',
  stop: 'Stop',
  writeItDown: 'Transcribe',
  readCaptions: 'Read captions',
  thisNeedsTwoRegionsOr: 'This needs at least two regions with people in them.',
  ofLinesGivenToWho: (named: number, count: number) => `${named} of ${count} lines given to who was seen speaking.`,
  captions: 'Captions',
  readWebvttOrSubrip: 'Read WebVTT or SubRip…',
  readFoundBesideIt: (fileName: string) => `Read “${fileName}”, found beside it`,
  writeWhatIsSaidBy: 'Transcribe with your own model…',
  pasteWhatIsSaid: 'Paste a transcript…',
  anEmptyLineHere: 'Add caption here',
  findAndReplace: 'Find and replace…',
  takeFillersOutOfWords: (count: number) =>
    count === 0
      ? 'No fillers in the captions'
      : `Take ${count} ${count === 1 ? 'filler' : 'fillers'} out of the captions`,
  cutFillersOut: 'Cut fillers out, with picture and sound',
  fillersTakenOut: (count: number) => `${count} ${count === 1 ? 'filler is' : 'fillers are'} out.`,
  doubtfulWords: 'Doubtful words…',
  whoSpeaksByWhoMoves: 'Detect speakers by movement',
  removeAllOf: (name: string) => `Remove all of “${name}”`,
  removeCaptions: 'Remove captions',
  leaveThemOffThePicture: 'Hide captions on the picture',
  writeThemOnThePicture: 'Show captions on the picture',
  saveAsWebvtt: 'Save as WebVTT',
  saveAsSubrip: 'Save as SubRip',
  saveThoseOfAllOf: (name: string) => `Save those of all of “${name}” as WebVTT`,
  saveThoseOfAllOfAs: (name: string) => `Save those of all of “${name}” as SubRip`,
  readFrom: (taken: number, fileName: string) =>
    `${taken} ${taken === 1 ? 'caption' : 'captions'} read from “${fileName}”`,
  whatWasNotAsIt: 'What was not as it should be',
  good: 'Good',
}
