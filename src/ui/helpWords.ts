/** What a screen is for, and what can be done on it, in the order in which it is mostly done. */
export interface ScreenHelp {
  name: string
  purpose: string
  steps: readonly string[]
  /** Whether the screen has keys of its own, which “?” lists. */
  hasKeys: boolean
}

const SHELF: ScreenHelp = {
  name: 'Shelf',
  purpose: 'Your recordings, and the highlights cut from them.',
  steps: [
    'Add recordings, or drop them anywhere on the page. They stay on this machine.',
    'Press “cut” beside a recording to make a highlight of it; press its strip of pictures to find moments first.',
    'Press a poster to open that highlight on the Bench.',
  ],
  hasKeys: false,
}

/** By the beginning of a screen’s address, the longest first. */
const SCREENS: readonly [address: string, help: ScreenHelp][] = [
  [
    '/recording/',
    {
      name: 'Spot',
      purpose: 'The moments of a recording that are worth cutting.',
      steps: [
        'Play, and mark a moment when something happens. Livelier moments are proposed as the recording is analysed.',
        'Keep or drop each one, and drag its ends in the bands below.',
        'Cut the ones you kept: a highlight each, or all joined into one.',
      ],
      hasKeys: true,
    },
  ],
  [
    '/highlight/',
    {
      name: 'Bench',
      purpose:
        'One highlight: the Sheet says when things happen, the Frame where they are in the recording, the Shapes what you get.',
      steps: [
        'Check the regions in the Frame: drag them, or let Brimble find them.',
        'Choose a layout over the Shapes; drag seams, insets, and the pictures in the panels.',
        'Trim, split, strike out and caption on the Sheet.',
        'Look at what was found at the bottom, then render.',
      ],
      hasKeys: true,
    },
  ],
  [
    '/rack',
    {
      name: 'Rack',
      purpose: 'What you saved to use again: setups, layouts, recipes, brands and outlets.',
      steps: [
        'Setups, layouts and recipes are saved on the Bench; brands and outlets are made here.',
        'Change, duplicate or export them here; highlights that use them stay as they are.',
      ],
      hasKeys: false,
    },
  ],
  [
    '/outbox/sheet',
    {
      name: 'Contact sheet',
      purpose: 'All highlights beside each other, in every shape.',
      steps: [
        'Make drafts looks recordings through and lays out their liveliest moments.',
        'Click a picture to play it; keep a draft, drop it, or open it on the Bench.',
        'Choose some, then lay them out by a recipe, or render them all.',
      ],
      hasKeys: true,
    },
  ],
  [
    '/outbox/week',
    {
      name: 'The week',
      purpose: 'Which file goes to which outlet, and when.',
      steps: ['Plan a post in a day of an outlet; drag it to another day, or write the plan as a calendar file.'],
      hasKeys: false,
    },
  ],
  [
    '/outbox',
    {
      name: 'Outbox',
      purpose: 'Finished files, and renders at work.',
      steps: [
        'Drag waiting renders into another order, or pause the queue.',
        'Save files one by one, as one zip, or into a folder; share them with a phone on your network.',
      ],
      hasKeys: false,
    },
  ],
]

export function helpFor(path: string): ScreenHelp {
  return SCREENS.find(([address]) => path.startsWith(address))?.[1] ?? SHELF
}

/** A part of a small drawing: a rectangle in hundredths of its sides, and whether it is what the word means. */
export interface DrawnPart {
  x: number
  y: number
  width: number
  height: number
  isMeant: boolean
}

const part = (x: number, y: number, width: number, height: number, isMeant = false): DrawnPart => ({
  x,
  y,
  width,
  height,
  isMeant,
})

export interface GlossaryWord {
  word: string
  meaning: string
  /** Drawn as a recording (wide) or as a result (tall). */
  drawn?: { kind: 'wide' | 'tall'; parts: readonly DrawnPart[] }
}

/** Brimble’s words, as they build on one another. */
export const GLOSSARY: readonly GlossaryWord[] = [
  { word: 'Recording', meaning: 'A video file of yours. It is never changed.' },
  { word: 'Highlight', meaning: 'What you cut from recordings and render in one or more shapes.' },
  { word: 'Passage', meaning: 'A stretch of one recording in a highlight, from its in point to its out point.' },
  { word: 'Strike', meaning: 'A stretch inside a passage that is left out. It can be restored.' },
  {
    word: 'Region',
    meaning: 'A named place in the recorded picture: a face, the game, slides.',
    drawn: { kind: 'wide', parts: [part(70, 58, 24, 34, true)] },
  },
  {
    word: 'Setup',
    meaning: 'The regions of one arrangement of your screen, saved to be recognised in other recordings.',
    drawn: { kind: 'wide', parts: [part(70, 58, 24, 34, true), part(2, 4, 64, 90, true)] },
  },
  { word: 'Shape', meaning: 'A format to render in: tall, portrait, square, wide, or a size of your own.' },
  {
    word: 'Panel',
    meaning: 'A part of the result that shows one region.',
    drawn: { kind: 'tall', parts: [part(4, 3, 92, 32, true), part(4, 37, 92, 60)] },
  },
  {
    word: 'Seam',
    meaning: 'The line between two panels. Drag it to resize both.',
    drawn: { kind: 'tall', parts: [part(4, 3, 92, 30), part(4, 33, 92, 4, true), part(4, 37, 92, 60)] },
  },
  {
    word: 'Inset',
    meaning: 'A panel that lies over the others.',
    drawn: { kind: 'tall', parts: [part(4, 3, 92, 94), part(48, 8, 42, 20, true)] },
  },
  { word: 'Layout', meaning: 'How panels and insets are arranged. It goes with every setup that has what it shows.' },
  { word: 'Recipe', meaning: 'A setup, a layout, a brand and shapes that belong together, applied in one action.' },
  { word: 'Overlay', meaning: 'What lies over the picture: a handle, a logo, a countdown, a progress bar.' },
  { word: 'Brand', meaning: 'Colours, fonts and pictures that your highlights have in common.' },
  { word: 'Outlet', meaning: 'Where a file goes, with its limits.' },
  {
    word: 'Zone',
    meaning: 'What an outlet covers with its own controls.',
    drawn: { kind: 'tall', parts: [part(4, 3, 92, 94), part(76, 44, 18, 40, true), part(6, 82, 66, 12, true)] },
  },
  { word: 'Finding', meaning: 'Something that is likely wrong, with what would fix it.' },
  { word: 'Moment', meaning: 'A stretch of a recording worth a highlight, proposed or marked by you.' },
]
