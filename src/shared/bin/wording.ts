/** What the interface says in this room, each sentence once. */
export const wording = {
  finishedFile: 'finished file',
  bin: 'Bin',
  theBinIsEmpty: 'The bin is empty.',
  deleteIt: 'Delete…',
  deleteItOfName: (name: string) => `Delete ${name}`,
  putBack: 'Put back',
  putBackOfName: (name: string) => `Put back ${name}`,
  emptyTheBin: 'Empty the bin',
  close: 'Close',
  notEverythingCouldBeDeleted: (explain: string) => `Not everything could be deleted: ${explain}. Try again.`,
  deleteForGood: (name: string) => `Delete “${name}” for good?`,
  deleteAllForGood: (count: number) => `Delete all ${count} for good?`,
  thisIt: 'This ',
  cannotBeUndone: 'cannot be undone.',
  givesBackAnd: (bytes: string) => `gives back ${bytes} and `,
  onTheShelfCutFrom: (highlights: string, cutFrom: number) =>
    `${highlights} on the Shelf ${cutFrom === 1 ? 'is' : 'are'} cut from what is deleted, and will ask for the file again.`,
  keep: 'Keep',
  deleteForGoodCapital: 'Delete for good',
  binOfCount: (count: number) => `Bin ${count}`,
  used: (bytes: string) => `${bytes} used`,
  copiesOfRecordingsAndFinished:
    'Copies of recordings and finished files, kept in this browser. What is free is the browser’s own estimate.',
  storageHere: 'Storage in this browser',
  recordingsAndFiles: 'Recordings and finished files',
  previewCopies: 'Preview copies',
  previewCopiesMean:
    'Small copies of what a highlight plays, for quick playing and seeking. They can be made again at any time, and go first when room is short. Files are always made from the recordings.',
  roomForPreviewCopies: 'Room for preview copies',
  deletePreviewCopies: 'Delete preview copies',
  aboutFree: (bytes: string) => `, about ${bytes} free`,
}
