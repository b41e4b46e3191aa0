import { assertNever } from '@/core/assert'
import type { RegionProposal } from '@/core/detect/regions/proposal'

/** What was recognised, in words. */
export function foundWords({ found, role }: Pick<RegionProposal, 'found' | 'role'>): string {
  switch (found) {
    case 'inset':
      return role === 'hud' ? 'a moving picture that never shows a face' : 'a picture laid over another'
    case 'tile':
      return 'one of the pictures side by side'
    case 'slides':
      return 'rests, then changes all at once'
    case 'content':
      return role === 'whole' ? 'the picture inside its bars' : 'the largest part beside the rest'
    case 'display':
      return 'a display that rests while the picture around it moves'
    case 'camera':
      return 'somebody who fills the picture'
    case 'person':
      return 'somebody seen here again and again, without edges'
    case 'text':
      return 'lines of text that go on changing'
    case 'moving-part':
      return 'the one part of the picture that moves'
    default:
      return assertNever(found)
  }
}

/** What the interface says in this room, each sentence once. */
export const wording = {
  thereIsNothingInTo: (name: string) => `There is nothing in ${name} to follow.`,
  looksLike: (name: string, likeness: number) => `Looks like “${name}” (${Math.round(100 * likeness)} %)`,
  laidOutBy: (words: string, name: string) => `${words}. Laid out by “${name}”.`,
  foundByItself: (names: readonly string[]) => `Found and set: ${names.join(', ')}.`,
  itsRegionsAreSet: (words: string) => `${words}. Its regions are set.`,
  undo: 'Undo',
  focusOf: (name: string) => `Focus of ${name}`,
  focus: 'focus',
  lookingAtTheFootage: 'Analysing the footage',
  lookedAt: 'Analysed',
  stop: 'Stop',
  proposedRegions: 'Proposed regions',
  proposedRegion: 'Proposed region',
  howSure: 'How sure it is',
  percentSure: (confidence: number) => `${Math.round(100 * confidence)} %`,
  accept: 'Accept',
  acceptOf: (name: string, n: number) => `Accept ${name} ${n + 1}`,
  changeBefore: (name: string, n: number) => `Change ${name} ${n + 1} before accepting`,
  rejectOf: (name: string, n: number) => `Reject ${name} ${n + 1}`,
  rejectedIsNotProposedAgain: 'Reject: it is not proposed again',
  role: 'Role',
  foundByItselfCheck: 'Those with “?” were found by Brimble and are not checked yet.',
  theyAreRight: 'Confirm all',
  isAGuess: 'Found by Brimble, not checked yet',
  theFootageCouldNotBe: (detail: string) => `The footage could not be analysed: ${detail}`,
  lookAgain: 'Look again',
  findRegions: 'Find regions',
  acceptAll: (count: number) => `Accept all ${count}`,
  nothingStandsOutNoBars:
    'Nothing stands out: no bars, no pictures side by side, none laid over another. Draw the regions yourself.',
  allThatWasFoundIs: 'Everything found is accepted.',
  acceptTheProposedSure: (name: string, confidence: number) =>
    `Accept the proposed ${name}, ${Math.round(100 * confidence)} % sure`,
  aim: (name: string) => `Aim ${name}`,
  path: 'path',
  isAimedHere: (name: string) => `Aim point of ${name}`,
  move: (name: string) => `Move ${name}`,
  resize: (name: string) => `Resize ${name}`,
  at: (name: string, width: number, height: number, x: number, y: number, locked: boolean, onlyHere: boolean) =>
    `${name}: ${width} × ${height} at ${x}, ${y}${locked ? ', locked' : ''}${onlyHere ? ', in this passage only' : ''}`,
  region: 'region',
  hereOnly: '· here only',
  square: 'square',
  ofItsPanel: 'of its panel',
  asItIs: 'as it is',
  hasNoBorderAndNo: (name: string) => `${name} has no border and no black to take off.`,
  tighten: (name: string) => `Tighten ${name}`,
  moreAbout: (name: string) => `More about ${name}`,
  name: 'Name',
  nameRegion: 'Name region',
  proportion: 'Proportion',
  holdProportion: 'Hold proportion',
  free: 'free',
  lockRegion: 'Lock region',
  unlockRegion: 'Unlock region',
  locked: 'Locked',
  hideOutline: 'Hide outline',
  showOutline: 'Show outline',
  outlineHidden: 'Outline hidden',
  aPartOfItThat: 'A part of it that is not cut where that can be helped; drag it in the picture',
  addFocus: 'Add focus',
  removeFocus: 'Remove focus',
  focusCapital: 'Focus',
  standStillInThisPassage: 'Stop following in this passage',
  standsStill: (name: string) => `Stop following ${name}`,
  cropsKeepTheFaceOr: 'Crops keep the face, or what moves, in view',
  lookingAlong: 'Checking…',
  followInThisPassage: 'Follow in this passage',
  asInAllPassagesAgain: 'Reset to all passages',
  looking: 'Looking…',
  tightenCapital: 'Tighten',
  copy: 'Copy',
  moveUp: 'Move up',
  moveDown: 'Move down',
  remove: 'Remove',
  regionCapital: 'Region',
  atLowercase: 'at',
  outputPixelsForEachRecorded: 'Output pixels for each recorded pixel, in the shape where it is largest',
  unused: 'unused',
  roleOf: (name: string) => `Role of ${name}`,
  hereOnlyAfter: ' · here only',
  keyAt: (time: string, jump: boolean) => `Key at ${time}${jump ? ', a new shot' : ''}`,
  removeKey: 'Remove key',
  theFace: 'the face',
  whoeverMoves: 'whoever moves',
  presenceIn: (name: string) => `Presence in ${name}`,
  ofTheTimeIsInside: (word: string) => `of the time ${word} is inside`,
  notAt: '; not at',
  andMore: (count: number, shown: number) => `and ${count - shown} more`,
  growToHold: 'Grow to fit',
  toTheLeastThatHolds: (width: number, height: number, word: string) =>
    `To ${width} × ${height}: the smallest that holds ${word} throughout`,
  grow: (name: string) => `Grow ${name}`,
  ribbons: 'Ribbons',
  theHighlightCouldNotBe: 'The regions could not be checked. They work all the same.',
  alongTheHighlight: (name: string) => `${name} along the highlight`,
  lookingAlongOf: (done: number, of: number, secondsLeft: number | null) =>
    `checking regions: ${done} of ${of}${secondsLeft === null ? '' : `, about ${secondsLeft} s left`}`,
  alongWasEnded: 'Checking was stopped.',
  lookAlongAgain: 'Check regions',
  isLookedAlongWhenNothing: 'checked when nothing plays',
  lookingAtWhatHoldsStill: 'Learning what this setup looks like…',
  whatHoldsStillInThe: 'Recordings that look like this one will be recognised.',
  theFootageWasNotLooked: 'The footage was not analysed, so this setup will not be recognised.',
  isKeptRecordingsThatLook: (name: string) => `“${name}” is kept. Recordings that look like this one get its regions.`,
  keepAsASetup: 'Keep as a setup',
  cancel: 'Cancel',
  keepSetup: 'Keep setup',
  isChangedAndOtherWith: (name: string, followed: number) =>
    `“${name}” is updated, and ${followed} other ${followed === 1 ? 'highlight' : 'highlights'} with it.`,
  isChangedHighlightsThatUsed: (name: string) =>
    `“${name}” is updated. Highlights that used it before stay as they are.`,
  setup: (name: string) => `Setup: ${name}`,
  setupCapital: 'Setup',
  regions: (count: number) => `${count} regions`,
  noSetupIsKeptYet: 'No setup is kept yet',
  changeForLater: (name: string) => `Update “${name}”`,
  changeAndTheOtherWith: (name: string, count: number) =>
    `Update “${name}” and ${count} other ${count === 1 ? 'highlight' : 'highlights'}`,
  keepTheseRegionsAsA: 'Keep these regions as a setup…',
  inUseChangedHereChoose: 'in use, changed here; choose to reset',
  inUse: 'in use',
  frame: 'Frame',
  hideOutlines: 'Hide outlines',
  showOutlines: 'Show outlines',
  theRecordingsPicture: 'The recording’s picture',
}
