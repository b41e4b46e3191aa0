import type { Merge } from '@/core/interchange/mergeRack'
import { RACK_KINDS, type FiledKind, type RackFileResult } from '@/core/interchange/rackFile'

const WORDS: Record<FiledKind, [one: string, many: string]> = {
  imageFile: ['picture', 'pictures'],
  fontFile: ['font', 'fonts'],
  setup: ['setup', 'setups'],
  layout: ['layout', 'layouts'],
  brand: ['brand', 'brands'],
  outlet: ['outlet', 'outlets'],
  recipe: ['recipe', 'recipes'],
}

const counted = (n: number, kind: FiledKind) => `${n} ${WORDS[kind][n === 1 ? 0 : 1]}`

const WHY_NOT = {
  'too-large': 'is too large to be of a rack',
  'not-json': 'is not a file of a rack, or is damaged',
  'not-a-rack': 'is not a file of a rack that Brimble wrote',
  'newer-version': 'was made by a newer Brimble: update this one',
}

/** Lines that one message can hold; the rest is counted. */
const MAX_LINES = 8

/** What came of reading a file, line by line. */
export function importWords(fileName: string, read: RackFileResult, merge: Merge | null): string {
  if (!read.ok) return `“${fileName}” ${WHY_NOT[read.reason]}. Nothing was changed.`
  const added = RACK_KINDS.filter((kind) => (merge?.add.records[kind].length ?? 0) > 0).map((kind) =>
    counted(merge?.add.records[kind].length ?? 0, kind),
  )
  const same = merge?.same.length ?? 0
  const lines = [
    `“${fileName}”: ${added.length === 0 ? 'nothing new' : `${added.join(', ')} added`}${same > 0 ? `, ${same} there already` : ''}.`,
  ]
  for (const { kind, name, what, reasons } of read.remarks) {
    const it = `${WORDS[kind][0]} “${name}”`
    if (what === 'refused') lines.push(`Left out: ${it}: ${reasons[0] ?? 'it cannot be read'}.`)
    else lines.push(...reasons.map((reason) => `${what === 'repaired' ? 'Repaired' : 'Check'}: ${it}: ${reason}.`))
  }
  return lines.length > MAX_LINES
    ? [...lines.slice(0, MAX_LINES), `and ${lines.length - MAX_LINES} more.`].join('\n')
    : lines.join('\n')
}

/** What the interface says in this room, each sentence once. */
export const wording = {
  cancel: 'Cancel',
  newBrand: 'New brand',
  ground: 'Background',
  words: 'Words',
  accent: 'Accent',
  fontOfTitles: 'Font of titles',
  fontOfCaptions: 'Font of captions',
  logo: 'Logo',
  endCard: 'End card',
  change: (name: string) => `Change ${name}`,
  keepChanges: 'Keep changes',
  makeBrand: 'Make brand',
  name: 'Name',
  handle: 'Handle',
  heronRidge: 'heron ridge',
  anotherPicture: 'Another picture…',
  chooseAPicture: 'Choose a picture…',
  pictureFor: (words: string) => `Picture for ${words}`,
  without: 'Without',
  putBack: 'Put back',
  nameOf: (name: string) => `Name of ${name}`,
  tagsOf: (name: string) => `Tags of ${name}`,
  noTags: 'no tags',
  notUsedYet: 'Not used yet',
  usedIn: 'Used in ',
  andMore: (count: number, shown: number) => ` and ${count - shown} more`,
  changeButton: 'Change…',
  duplicate: 'Duplicate',
  duplicateOfName: (name: string) => `Duplicate ${name}`,
  exportIt: 'Export',
  exportItOfName: (name: string) => `Export ${name}`,
  remove: 'Remove',
  removeOfName: (name: string) => `Remove ${name}`,
  isInTheBinWhat: (name: string) => `“${name}” is in the bin. Highlights keep its colours.`,
  titlesInCaptionsIn: (handle: string, title: string, captions: string) =>
    `${handle || 'no handle'} · titles in ${title}, captions in ${captions}`,
  aLogo: ' · a logo',
  anEndCard: ' · an end card',
  aa: 'Aa',
  isInTheBinHighlights: (name: string) => `“${name}” is in the bin. Highlights keep their arrangement.`,
  itsOwnIn: (list: string) => ` · its own in ${list}`,
  zonesOnTheShape: 'Zones on the shape',
  zone: 'zone',
  newOutlet: 'New outlet',
  makeOutlet: 'Make outlet',
  width: 'Width',
  height: 'Height',
  longest0ForAny: 'Longest (0 for any)',
  titleAtMost: 'Title at most',
  letters: 'letters',
  textAtMost: 'Text at most',
  largest0ForAny: 'Largest (0 for any)',
  mb: 'MB',
  loudness: 'Loudness',
  lufs: 'LUFS',
  highestPeak: 'Highest peak',
  dBTP: 'dBTP',
  whatItCovers: 'What it covers',
  covers: 'Covers',
  addZone: 'Add zone',
  zoneOfCount: (count: number) => `Zone ${count + 1}`,
  isInTheBin: (name: string) => `“${name}” is in the bin.`,
  anyLength: 'any length',
  atMostS: (longestMicros: number, perSecond: number) => `at most ${longestMicros / perSecond} s`,
  anySize: 'any size',
  atMost: (bytes: string) => `at most ${bytes}`,
  coversNothing: 'Covers nothing',
  coversOfList: (list: string) => `Covers: ${list}`,
  isInTheBinWhatIt: (name: string) => `“${name}” is in the bin. Its setup, layout and brand stay.`,
  setup: (name: string) => `Setup “${name}”`,
  anySetup: 'Any setup',
  noBrand: 'no brand',
  isInTheBinHighlightsKeep: (name: string) => `“${name}” is in the bin. Highlights keep their regions.`,
  recognisedByItself: 'recognised automatically',
  notRecognisedByItself: 'not recognised automatically',
  importIt: 'Import…',
  exportAll: 'Export all',
  filesOfARack: 'Files of a rack',
  setups: 'Setups',
  rack: 'Rack',
  whatYouSaved: 'saved setups, layouts, recipes, brands and outlets',
  whereThingsAreInYour:
    'Where things are in your recordings. A setup that is recognised in a new recording is used automatically.',
  noneKeptYetOnThe: 'None kept yet. On the Bench, once the regions are right, open the menu ',
  overTheFrameAndChoose:
    ' over the Frame and choose “Keep these regions as a setup”. Files that somebody sent you: use Import.',
  setupCapital: 'Setup',
  layouts: 'Layouts',
  whereThingsGoEveryHighlight: 'Where things go. Every highlight begins with the starting layouts; these are your own.',
  noneKeptYetOnTheBench: 'None kept yet. On the Bench, open ',
  overTheShapesAndChoose: ' over the Shapes and choose “Keep this layout”.',
  layout: 'Layout',
  recipes: 'Recipes',
  setupLayoutBrandAndShapes:
    'Setup, layout, brand and shapes that belong together: applied in one action, or automatically where a setup is recognised.',
  overTheShapesAndChooseKeep: ' over the Shapes and choose “Keep as a recipe”.',
  brands: 'Brands',
  coloursFontsAndPicturesThat: 'Colours, fonts and pictures that your highlights share.',
  noneKeptYet: 'None kept yet.',
  newBrandButton: 'New brand…',
  outlets: 'Outlets',
  whereFilesAreHeadedShape:
    'Where files go: shape, limits, and what covers the picture there. Change them when the outlets do.',
  noneKept: 'None kept.',
  newOutletButton: 'New outlet…',
}
