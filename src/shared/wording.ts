/** What the interface says in this room, each sentence once. */
export const wording = {
  takesFarLongerToRead: 'takes far longer to read than a file of its size should',
  cannotBeRead: 'cannot be read',
  itIsDamagedOrMade: (fileName: string, why: string) =>
    `“${fileName}” ${why}: it is damaged, or made to be slow. Nothing was changed.`,
  isTooLargePicturesHave: (fileName: string) =>
    `“${fileName}” is too large: pictures have at most 60 MB, 20,000 pixels a side and 120 million in all. Nothing was changed.`,
  isNotAPictureThat: (fileName: string) =>
    `“${fileName}” is not a picture that can be shown here: PNG, JPEG, WebP, GIF and SVG are. Nothing was changed.`,
  theBrowsersStorageIsFull:
    'The browser’s storage is full: what you just did could not be kept. Remove recordings or finished files, empty the bin, and try again.',
  openTheBin: 'Open the bin',
  notKept: 'not kept',
  saving: 'Saving…',
  isThis: (setupName: string) => `Is this “${setupName}”?`,
  looksLike: (setupName: string, likeness: number) => `Looks like “${setupName}” (${Math.round(100 * likeness)} %)`,
  useItsRegions: 'Use its regions',
  useItWith: (recipeName: string) => `Use it, with “${recipeName}”`,
  useIt: 'Use it',
  itIsNot: 'It is not',
  byItselfForRecordingsRecognised: (name: string) => `By itself, for recordings recognised as “${name}”`,
  cutIntoScenesByItself: 'New highlights are cut into their scenes, too',
}
