import { clamp, type Range } from '../clamp'
import { DEFAULT_BACKDROP, type Backdrop } from '../model/backdrop'
import type { InsetId, PanelId } from '../model/ids'
import type { Inset } from '../model/inset'
import type { Arrangement, Extent, LayoutNode, StackChild } from '../model/layout'
import type { Outline } from '../model/outline'
import { newPanel, type Panel } from '../model/panel'
import { isPerson, showsSomebody, type Role } from '../model/region'

/** The regions that a setup offers, by what they are good for, in the setup's order. */
interface Cast {
  person: (n?: number) => Role
  /** As many people as there are; where there is only one, whole pictures. */
  oneOf: (n: number) => Role
  /** All people, two at least and nine at most. */
  everybody: readonly Role[]
  scene: Role
  /** What a narrow crop loses and is shown again. */
  extra: Role
}

/** An arrangement to begin with. */
export interface StartingLayout {
  id: string
  name: string
  /** What it is good for, in a few words. */
  purpose: string
  /** It is meant for so many people at least. */
  people?: number
  arrange: (cast: Cast, ids: NewIds) => Arrangement
}

interface NewIds {
  panel: (role: Role, as?: Partial<Panel>) => Panel
  inset: () => InsetId
}

const LANDSCAPE = 16 / 9
/** As high as a landscape picture is when it fills the width, but never more than so much of the whole. */
const landscape = (most: number): Extent => ({ kind: 'shaped', proportion: LANDSCAPE, most })
const share = (weight: number): Extent => ({ kind: 'weight', weight })
const child = (extent: Extent, node: LayoutNode): StackChild => ({ extent, node })
const column = (children: StackChild[], gap = 0): LayoutNode => ({ kind: 'stack', axis: 'column', gap, children })
const row = (children: StackChild[], gap = 0): LayoutNode => ({ kind: 'stack', axis: 'row', gap, children })
const equal = (nodes: LayoutNode[]) => nodes.map((node) => child(share(1), node))
const over = (tree: LayoutNode, backdrop: Backdrop = DEFAULT_BACKDROP, insets: Inset[] = []): Arrangement => ({
  tree,
  insets,
  backdrop,
})
const blurOf = (role: Role): Backdrop => ({ kind: 'blur', role, strength: 0.6, darken: 0.25 })
const SPACE: LayoutNode = { kind: 'space' }

/** So many people have a panel each. */
const EVERYBODY: Range = { least: 2, most: 9 }

/** Panels of one size in rows of `inRow`; a row that is not full stands in the middle. */
function rows(panels: readonly Panel[], inRow: number): LayoutNode {
  const all = Array.from({ length: Math.ceil(panels.length / inRow) }, (_, n) =>
    panels.slice(n * inRow, (n + 1) * inRow),
  )
  return column(
    equal(
      all.map((some) => {
        const beside = (inRow - some.length) / 2
        const space = beside > 0 ? [child(share(beside), SPACE)] : []
        return row([...space, ...equal([...some]), ...space])
      }),
    ),
  )
}

const ROUND: Outline = { mask: { kind: 'ellipse' }, border: { width: 0.006, colour: '#ffffff' }, shadow: null }
const CARD: Outline = { mask: { kind: 'rounded', radius: 0.08 }, border: null, shadow: { blur: 0.03, opacity: 0.5 } }

/** Every arrangement that practitioners build, in the order in which it is offered. */
export const STARTING_LAYOUTS: readonly StartingLayout[] = [
  {
    id: 'face-over-game',
    name: 'Face over game',
    purpose: 'A band for the face, the rest for what happens',
    arrange: ({ person, scene }, { panel }) =>
      over(column([child(landscape(0.42), panel(person())), child(share(1), panel(scene))])),
  },
  {
    id: 'game-over-face',
    name: 'Game over face',
    purpose: 'What happens above, the face below it',
    arrange: ({ person, scene }, { panel }) =>
      over(column([child(share(1), panel(scene)), child(landscape(0.42), panel(person()))])),
  },
  {
    id: 'parted-bands',
    name: 'Parted bands',
    purpose: 'Face and game, with a strip of the blurred picture between and around',
    arrange: ({ person, scene }, { panel }) =>
      over(
        column([
          child(share(2), SPACE),
          child(landscape(0.38), panel(person())),
          child(share(2), SPACE),
          child(share(56), panel(scene)),
          child(share(2), SPACE),
        ]),
        blurOf('whole'),
      ),
  },
  {
    id: 'extra-strip',
    name: 'Extra strip',
    purpose: 'A third band for what a narrow crop loses: a score, a list, the chat',
    arrange: ({ person, scene, extra }, { panel }) =>
      over(
        column([
          child(landscape(0.34), panel(person())),
          child(share(1), column([child(share(16), panel(extra, { fit: 'whole' })), child(share(84), panel(scene))])),
        ]),
        blurOf('whole'),
      ),
  },
  {
    id: 'two-people',
    name: 'Two people',
    purpose: 'Two halves, one above the other',
    people: 2,
    arrange: ({ person, scene, oneOf }, { panel }) =>
      over(column(equal([panel(person()), panel(oneOf(1) === 'whole' ? scene : oneOf(1))]))),
  },
  {
    id: 'three-bands',
    name: 'Three bands',
    purpose: 'Three people, or three clips, in equal parts',
    arrange: ({ oneOf }, { panel }) => over(column(equal([0, 1, 2].map((n) => panel(oneOf(n)))))),
  },
  {
    id: 'four-bands',
    name: 'Four bands',
    purpose: 'Four people, or four clips, in equal parts',
    arrange: ({ oneOf }, { panel }) => over(column(equal([0, 1, 2, 3].map((n) => panel(oneOf(n)))))),
  },
  {
    id: 'everyone-alike',
    name: 'Everyone alike',
    purpose: 'Everybody in equal parts, in rows',
    arrange: ({ everybody }, { panel }) =>
      over(
        rows(
          everybody.map((role) => panel(role)),
          everybody.length > 8 ? 3 : 2,
        ),
        blurOf('whole'),
      ),
  },
  {
    id: 'one-large',
    name: 'One large',
    purpose: 'The first person large, everybody else small below',
    arrange: ({ everybody: [first = 'face', ...others] }, { panel }) =>
      over(
        column([
          child(share(3), panel(first)),
          child(
            share(2),
            rows(
              others.map((role) => panel(role)),
              others.length < 4 ? others.length : Math.ceil(others.length / 2),
            ),
          ),
        ]),
        blurOf('whole'),
      ),
  },
  {
    id: 'picture-over-people',
    name: 'Picture over people',
    purpose: 'Slides or game above, everybody in equal parts below',
    arrange: ({ everybody, scene }, { panel }) =>
      over(
        column([
          child(landscape(0.5), panel(scene)),
          child(
            share(1),
            rows(
              everybody.map((role) => panel(role)),
              Math.ceil(everybody.length / 3),
            ),
          ),
        ]),
        blurOf('whole'),
      ),
  },
  {
    id: 'face-alone',
    name: 'Face alone',
    purpose: 'One person fills the frame',
    arrange: ({ person }, { panel }) => over(panel(person())),
  },
  {
    id: 'game-alone',
    name: 'Game alone',
    purpose: 'What happens fills the frame',
    arrange: ({ scene }, { panel }) => over(panel(scene)),
  },
  {
    id: 'afloat',
    name: 'Afloat',
    purpose: 'The whole picture over a blurred copy of itself',
    arrange: (_, { panel }) => over(panel('whole', { fit: 'whole' }), blurOf('whole')),
  },
  {
    id: 'mirror-lake',
    name: 'Mirror lake',
    purpose: 'The whole picture, mirrored above and below',
    arrange: (_, { panel }) => over(panel('whole', { fit: 'whole' }), { kind: 'mirror', role: 'whole', darken: 0.35 }),
  },
  {
    id: 'plain-ground',
    name: 'Plain ground',
    purpose: 'The whole picture over a colour that runs into another',
    arrange: (_, { panel }) =>
      over(panel('whole', { fit: 'whole' }), { kind: 'gradient', from: '#2e5e3e', to: '#16181a', degrees: 0 }),
  },
  {
    id: 'headline',
    name: 'Headline',
    purpose: 'A title close above the whole picture, captions under it, on a colour',
    arrange: (_, { panel }) =>
      over(
        column([
          child(share(2), SPACE),
          child(share(5), { kind: 'titleArea' }),
          child(landscape(0.64), panel('whole', { fit: 'whole' })),
          child(share(4), { kind: 'captionArea' }),
          child(share(3), SPACE),
        ]),
        { kind: 'colour', colour: '#20261f' },
      ),
  },
  {
    id: 'porthole',
    name: 'Porthole',
    purpose: 'The game fills the frame, the face in a round window',
    arrange: ({ person, scene }, { panel, inset }) =>
      over(panel(scene), DEFAULT_BACKDROP, [
        {
          id: inset(),
          anchor: 'nw',
          dx: 0.04,
          dy: 0.08,
          width: 0.38,
          proportion: 1,
          panel: panel(person(), { outline: ROUND }),
        },
      ]),
  },
  {
    id: 'corner-card',
    name: 'Corner card',
    purpose: 'The game fills the frame, the face on a card in a corner',
    arrange: ({ person, scene }, { panel, inset }) =>
      over(panel(scene), DEFAULT_BACKDROP, [
        {
          id: inset(),
          anchor: 'ne',
          dx: -0.04,
          dy: 0.08,
          width: 0.48,
          proportion: LANDSCAPE,
          panel: panel(person(), { outline: CARD }),
        },
      ]),
  },
  {
    id: 'astride',
    name: 'Astride',
    purpose: 'Three depths: a blurred ground, the game, and the face astride its edge',
    arrange: ({ person, scene }, { panel, inset }) =>
      over(column([child(share(22), SPACE), child(share(58), panel(scene)), child(share(20), SPACE)]), blurOf(scene), [
        {
          id: inset(),
          anchor: 'n',
          dx: 0,
          dy: 0.115,
          width: 0.62,
          proportion: LANDSCAPE,
          panel: panel(person(), { outline: CARD }),
        },
      ]),
  },
  {
    id: 'quarter-turn',
    name: 'Quarter turn',
    purpose: 'The whole picture on its side; the viewer turns the phone',
    arrange: (_, { panel }) => over(panel('whole', { fit: 'whole', turn: 1 }), blurOf('whole')),
  },
]

/** What `roles`, a setup's in order and repeated where there are several, have to offer. */
function castFrom(roles: readonly Role[]): Cast {
  const people = [...roles.filter(isPerson), ...roles.filter((r) => showsSomebody(r) && !isPerson(r))]
  const oneOf = (n: number) => (people.length > 1 ? (people[n] ?? people[0] ?? 'face') : 'whole')
  const firstOf = (...wanted: Role[]) => wanted.find((r) => roles.includes(r))
  return {
    person: (n = 0) => people[n] ?? people[0] ?? 'face',
    oneOf,
    everybody: Array.from({ length: clamp(people.length, EVERYBODY) }, (_, n) => oneOf(n)),
    scene: firstOf('game', 'slides') ?? 'whole',
    extra: firstOf('hud', 'chat', 'logo') ?? 'hud',
  }
}

/** A starting layout for a setup with these roles. `panelId` names each panel: the `n`th of its role. */
export function arrangeFor(
  { arrange }: StartingLayout,
  roles: readonly Role[],
  panelId: (role: Role, n: number) => PanelId,
  insetId: () => InsetId,
): Arrangement {
  const made = new Map<Role, number>()
  return arrange(castFrom(roles), {
    panel: (role, as) => {
      const n = made.get(role) ?? 0
      made.set(role, n + 1)
      return newPanel(panelId(role, n), role, as)
    },
    inset: insetId,
  })
}
