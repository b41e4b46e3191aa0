/** What the interface says in this room, each sentence once. */
export const wording = {
  recordingsLookLike: (names: readonly string[], setupName: string) =>
    names.length === 1
      ? `“${names[0]}” looks like “${setupName}”`
      : `${names.length} recordings look like “${setupName}”: ${names.slice(0, 3).join(', ')}${names.length > 3 ? '…' : ''}`,
  useForAll: (count: number) => (count === 1 ? 'Use it' : `Use it for all ${count}`),
  setupUsedIn: (setupName: string, count: number) =>
    `“${setupName}” is used in ${count} ${count === 1 ? 'highlight' : 'highlights'}. Each can be undone on its own.`,
  layOutRecordingsByA: 'Lay out recordings by a recipe',
  eachChosenRecordingBecomesA:
    'Each chosen recording becomes a highlight of its whole length. Recordings of more than three minutes are not listed: cut them on the Shelf first, then choose their highlights on the sheet.',
  recipe: 'Recipe',
  chooseNone: 'Choose none',
  chooseAll: 'Choose all',
  recordings: 'Recordings',
  noRecordingOnTheShelf: 'No recording on the Shelf is short enough.',
  cut: (cutAlready: number) => `${cutAlready} cut · `,
  layingOutOf: (done: number, count: number) => `Laying out ${done + 1} of ${count}`,
  close: 'Close',
  layOut: (count: number) => `Lay out ${count}`,
  layOutCapital: 'Lay out',
  render: (count: number) => `Render ${count} ${count === 1 ? 'highlight' : 'highlights'}`,
  settings: 'Settings',
  eachWithTheSettingsIt: 'Each with the settings it was last given on the Bench',
  allWithTheSameSettings: 'All with the same settings',
  notNow: 'Not now',
  renderOfFiles: (files: number) => `Render ${files} ${files === 1 ? 'file' : 'files'}`,
  openOnTheBench: (name: string) => `Open ${name} on the Bench`,
  isLookedOver: 'checking',
  nothingFound: 'nothing found',
  laidOutByEachCan: (laidOut: number, recipeName: string, left: number) =>
    `${laidOut} laid out by “${recipeName}”. Each can be undone on the Bench.${left > 0 ? ` ${left} could not be changed: the disk may be full.` : ''}`,
  queueingFiles: (files: number) => `Queueing ${files} files`,
  renderingYouCanGoOn: (files: number) =>
    `Rendering ${files} ${files === 1 ? 'file' : 'files'}. You can go on working.`,
  whatToDoWithThem: 'What to do with them',
  ofChosen: (done: number, of: number) => `${done} of ${of} chosen`,
  highlight: 'highlight',
  highlights: 'highlights',
  keepARecipeOnThe: 'Keep a recipe on the Bench, under Layout, to lay many out by it.',
  fromRecordings: 'From recordings…',
  layOutByARecipe: 'Lay out by a recipe',
  renderOfCount: (count: number) => `Render ${count > 0 ? `all shapes of ${count}` : 'the chosen'}`,
  thereAreNoHighlightsYet:
    'There are no highlights yet. Cut some from a recording on the Shelf, or drop clips there whose setup has a recipe that is used by itself.',
  highlightsCapital: 'Highlights',
}
