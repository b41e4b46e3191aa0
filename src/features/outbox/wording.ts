import type { RenderFailure } from '@/core/model/render'
import { formatSize, formatTime } from '@/ui/format'

/** Why a render ended without a file, what was kept, and what to do. */
export function failureMessage(failure: RenderFailure): string {
  switch (failure.reason) {
    case 'source-missing':
      return `“${failure.fileName}” was not found. Open the highlight and choose the file again, then retry.`
    case 'source-unreadable':
      return `“${failure.fileName}” cannot be decoded at ${formatTime(failure.atMicros)} (${failure.detail}). Cut that part out, or repair the file, then retry.`
    case 'encoder-refuses-size':
      return `This browser has no encoder for ${formatSize(failure)}. Choose a smaller shape.`
    case 'no-room':
      return 'The browser’s storage is full: the file could not be written and nothing of it is left. Save and throw away older files here, then retry.'
    case 'interrupted':
      return 'The tab was closed or crashed again and again in the middle. The edit is safe: retry makes the file from the start.'
    case 'nodes-failed':
      return `The render nodes could not make it (${failure.detail}). Retry makes it here; the nodes can be asked again then.`
    case 'broken':
      return `Something went wrong in the render (${failure.detail}). The edit is safe; retry, and report it if it happens again.`
  }
}

/** What the interface says in this room, each sentence once. */
export const wording = {
  aPickUpHolds4: 'a pick-up holds 4 GB at most',
  aPickUpHolds60: 'a pick-up holds 60 files at most',
  thePickUpWasClosed: 'the pick-up was closed',
  filesOfThisKindAre: 'files of this kind are not handed over',
  itWasMadeAndWhat: 'it was made, and what was made is not known',
  noReasonWasGiven: 'no reason was given',
  triedOnce: 'tried once',
  triedTimes: (attempts: number) => `tried ${attempts} times`,
  theNodesQueueDoesNot: 'the nodes’ queue does not know it any more',
  outlet: 'Outlet',
  player: 'Player',
  nothingBesideIt: 'Nothing to compare',
  closePlayer: 'Close player',
  theFileIsNoLonger: 'The file is no longer in the browser’s storage. Render it again.',
  beside: (nameOf: string) => `Beside: ${nameOf}`,
  lastGateNoLift: 'Last gate, no lift',
  story: 'Story',
  whicheverIsQuickerHere: 'whichever is faster here',
  theGpu: 'the GPU',
  theKernelOnTheDecoders: 'the kernel, on the decoder’s own planes',
  theBrowsersCanvas: 'the browser’s canvas',
  theKernel: 'the kernel',
  theCanvas: 'the canvas',
  itIsMeasuredBeforeThe: 'It is measured before the first render.',
  measuredHereTheCanvasMs: (canvasMs: number, planesMs: number | null, gpuMs: number | null) =>
    `Measured here: the canvas ${canvasMs.toFixed(1)} ms a picture, the kernel ${planesMs === null ? 'not at all' : `${planesMs.toFixed(1)} ms`}, ${gpuMs === null ? 'no GPU' : `the GPU ${gpuMs.toFixed(1)} ms`}.`,
  theProcessorDoesItsWork: (said: string) => `${said} The processor does its work, slowly.`,
  used: (said: string, used: string) => `${said} Used: ${used}.`,
  outboxSettings: 'Outbox settings',
  folder: 'Folder',
  chooseAnother: 'Choose another',
  chooseAFolder: 'Choose a folder',
  keepFilesHereOnly: 'Keep files here only',
  names: 'Names',
  thereIsNoThereAre: (unknown: undefined | string, list: string) => `There is no {${unknown}}. There are ${list}.`,
  mp4PartsNoTwoFiles: (sample: string, list: string) =>
    `${sample}.mp4. Parts: ${list}. No two files get the same name.`,
  picturesAreDrawnBy: 'Drawing engine',
  tellMeThroughTheSystem: 'Notify me when the queue is done or needs me',
  theBrowserDoesNotAllow:
    'The browser does not allow it. Allow notifications for this page in its settings, then try again.',
  close: 'Close',
  keep: 'Keep',
  eachFinishedFileIsPut: (folderName: string) =>
    `Each finished file is put into “${folderName}”, beside being kept here.`,
  filesAreKeptHereUntil:
    'Files are kept here until you save them. With a folder they are put there as they are finished.',
  thisBrowserCannotWriteTo: 'This browser cannot write to a folder: files are kept here until you save them.',
  toThePhone: 'To the phone',
  aPhoneOnTheSame:
    'A phone on the same network can then look at these files, save or share them, for half an hour, with a code. Nothing leaves your network.',
  filesForThePhone: 'Files for the phone',
  layingFilesReady: 'Preparing files',
  theFilesAreStillHere: (problem: string) => `${problem}. The files are still here.`,
  closeThePickUp: 'Stop sharing',
  done: 'Done',
  notNow: 'Not now',
  layReady: (count: number, bytes: string) => `Share ${count}, ${bytes}`,
  pointThePhonesCameraAt: 'Point the phone’s camera at it, or open',
  andTypeTheCode: 'and type the code',
  code: 'Code',
  forMore: (count: number, duration: string) => `${count} ${count === 1 ? 'file' : 'files'}, for ${duration} more`,
  theTimeIsOverThe: 'The time is over: the files are no longer there.',
  thisMachineIsOnNo: 'This machine is on no network that a phone could be on.',
  qrPictureOfTheAddress: 'QR picture of the address with the code',
  handToTheRenderNodes: (count: number) => `Hand ${count} to the render nodes`,
  theZipCouldNotBe: 'The zip could not be written: the disk may be full. The files are still here.',
  putInto: (saved: number, name: undefined | string) => `${saved} put into “${name}”.`,
  couldNotBePutInto: (left: number, name: undefined | string) =>
    `${left} could not be put into “${name}”. They are still here.`,
  queue: 'Queue',
  goOn: 'Go on',
  holdTheQueue: 'Pause the queue',
  putIntoOfCount: (count: number, name: string) => `Put ${count} into “${name}”`,
  saveAsOneZip: (count: number) => `Save ${count} as one zip`,
  zipping: (zipped: number) => `Zipping, ${zipped} %`,
  toThePhoneButton: 'To the phone…',
  settings: 'Settings…',
  heldNothingWillBeRendered: 'Paused: nothing will be rendered',
  nothingIsWaiting: 'Nothing is waiting',
  toGo: (count: number) => `${count} to go`,
  held: 'paused',
  aboutLeft: (duration: string) => `about ${duration} left`,
  theRenderNodesQueueDoes: 'The render nodes’ queue does not answer. Nothing was changed.',
  aRenderNodeIsAt: 'A render node is at work on it; it will be made there.',
  takeBack: 'Take back',
  captionsBeside: ' · captions beside',
  cancel: 'Cancel',
  retry: 'Retry',
  playing: 'Playing',
  play: 'Play',
  save: 'Save',
  isInTheBin: (fileName: string) => `“${fileName}” is in the bin`,
  undo: 'Undo',
  asRendered: (name: string) => `${name} (as rendered)`,
  moreFor: (name: string, id: string) => `More for ${name}, ${id}`,
  openTheHighlight: 'Open the highlight',
  openAsItWasAs: 'Open as it was, as a copy',
  moveToTheBin: 'Move to the bin',
  remove: 'Remove',
  waiting: 'Waiting',
  withTheRenderNodesWaiting: 'With the render nodes, waiting for one',
  inTheRenderNodesFolder: (node: string) => `in the render nodes’ folder, by ${node}`,
  aStill: 'a still',
  aLoop: 'a loop',
  vp9AndOpusInMp4: 'VP9 and Opus in MP4',
  av1AndOpusInMp4: 'AV1 and Opus in MP4',
  vp9AndOpusInWebm: 'VP9 and Opus in WebM',
  av1AndOpusInWebm: 'AV1 and Opus in WebM',
  ofThemAsRecorded: (framesTakenOver: number) => `${framesTakenOver} of them as recorded`,
  withIt: (list: string) => `with ${list}`,
  inTheFolderAs: (savedAs: string) => `in the folder as ${savedAs}`,
  soundByBrimblesOwnAac: 'sound by Brimble’s own AAC encoder',
  starting: 'Starting',
  measuringOnceWhatDrawsFastest: 'Measuring, once, what draws fastest on this machine',
  atWorkInAnotherTab: 'At work in another tab',
  rendering: (name: string) => `Rendering ${name}`,
  frameOfFramesSS: (frame: number, frames: number, rate: string, secondsLeft: number) =>
    `frame ${frame} of ${frames} · ${rate} frames/s · ${secondsLeft} s left`,
  atARenderNode: ' · at a render node',
  moveNumberInTheQueue: (name: string, id: string, place: number) =>
    `Move ${name}, ${id}, number ${place} in the queue`,
  noFilesYet: 'No files yet',
  finishedFilesAndRendersAt:
    'Finished files and renders at work are listed here. Open a highlight from the Shelf and press Render.',
  goToTheShelf: 'Go to the Shelf',
  lettersLeft: (left: number) => `${left} letters left`,
  lettersTooManyFor: (left: number, name: undefined | string) =>
    `${-left} letters too many for ${name ?? 'this outlet'}`,
  takesAtMost: (bytes: string, name: undefined | string, bytes2: string) => `${bytes}: ${name} takes ${bytes2} at most`,
  itIsShows: (id: string, name: string, id2: string) => `It is ${id}; ${name} shows ${id2}`,
  post: 'Post',
  planAPost: 'Plan a post',
  thisPost: (stateWords: string) => `This post: ${stateWords}.`,
  itSaid: (detail: string) => ` It said: “${detail}”`,
  file: 'File',
  when: 'When',
  title: 'Title',
  text: 'Text',
  takeOutOfThePlan: 'Take out of the plan',
  planIt: 'Plan it',
  tryAgain: 'Try again',
  takesEverything: 'takes everything',
  cannotBeReached: 'cannot be reached',
  isTooBusy: 'is too busy',
  saysTooLarge: 'says: too large',
  saysSignInAgain: 'says: sign in again',
  noRealOutletIsConnected:
    'No real outlet is connected: what is due is sent to a stand-in on this machine, which notes it down and throws the file away.',
  itHasTaken: (taken: number) => ` It has taken ${taken}.`,
  postsOfTheWeek: 'Posts of the week',
  planAPostOfLabel: (label: string) => `Plan a post: ${label}`,
  postsByDayAndOutlet: 'Posts by day and outlet',
  whatGoesWhere: 'What goes where',
  isNoLongerPlanned: (title: string) => `“${title}” is no longer planned`,
  movedTo: (title: string, day: string) => `“${title}” moved to ${day}`,
  weekOf: (day: string) => `Week of ${day}`,
  before: 'Before',
  thisWeek: 'This week',
  after: 'After',
  calendarFile: 'Calendar file',
  table: 'Table',
  thereIsNoFinishedFile: 'There is no finished file yet: render a highlight first, then plan where it goes.',
  whatToLookAt: 'What to look at',
  noDoublingsNoCrowdsNo: 'No doublings, no crowds, no gaps.',
}
