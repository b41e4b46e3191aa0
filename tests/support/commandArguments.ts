import { sampleEdit } from './edits'
import { type seeded } from './seeded'
import type { Leapfrog } from '@/core/cut/leapfrog'
import { arrangementIn } from '@/core/compose/arrangementIn'
import { findingsOf, NOTHING_MEASURED } from '@/core/findings/findings'
import { solve } from '@/core/layout/solve'
import { panelsOf } from '@/core/layout/tree'
import type { Bed } from '@/core/model/bed'
import type { Brand } from '@/core/model/brand'
import { passageOf, type Edit } from '@/core/model/edit'
import {
  newId,
  type BedId,
  type CueId,
  type InsetId,
  type LayoutId,
  type MarkId,
  type PanelId,
  type PassageId,
  type RecordingId,
  type RegionId,
  type SetupId,
  type SoundFileId,
  type SpeakerId,
  type TitleId,
} from '@/core/model/ids'
import { CUT, JOIN_KINDS, type Join } from '@/core/model/join'
import { startingOutlets } from '@/core/model/outlet'
import type { Passage } from '@/core/model/passage'
import { newMark, type MarkKind, type PictureMark } from '@/core/model/pictureMark'
import type { WholeRecipe } from '@/core/model/recipe'
import { newRecord } from '@/core/model/record'
import { STANDARD_ROLES, type Region } from '@/core/model/region'
import { newSetup } from '@/core/model/setup'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { version as versionSchema } from '@/core/model/version'
import { outputLength } from '@/core/time/timeMap'
import { findText } from '@/core/words/cueEdits'
import { timedTokens } from '@/core/words/tokens'
import { CAPTION_STYLES } from '@/core/words/textStyles'
import { cutsAt } from '@/edit/changes'
import { shortShotsOf } from '@/edit/passages'
import { tryRemedy } from '@/edit/remedies'

type Random = ReturnType<typeof seeded>

const FRAME = { width: 1920, height: 1080 }
export const SETUP = 's' as SetupId
const LAYOUT = 'l' as LayoutId
export const [OUTLET = null] = startingOutlets('2026-11-25T10:00:00.000Z')
const WORDS = [
  'Last gate',
  'no lift',
  'stay with it, stay low',
  '',
  'Über den Grat',
  '最後の',
  'a'.repeat(90),
  'low '.repeat(400),
]
export const LEAPFROG: Leapfrog = {
  bands: 2,
  role: 'game',
  directions: ['left', 'right', 'up'],
  lengthMicros: 400_000,
  easing: 'soft',
}
const BASE = newRecord('2026-11-24T10:00:00.000Z')
/** Commands that make more of something. */
export const ADDING = [
  'shift-region',
  'set-path',
  'toggle-shape',
  'add-region',
  'draw-region',
  'copy-region',
  'split-passage',
  'cut-at-changes',
  'duplicate-passage',
  'insert-passages',
  'insert-bed',
  'go-own-way',
  'add-band',
  'add-inset',
  'nudge-crop',
  'set-feed',
  'add-cue',
  'split-caption',
  'add-title',
  'add-speaker',
  'add-mark',
]

/** What chance puts into each command; null where there is nothing to do it to. */
export function argumentsFor(edit: Edit, random: Random): Record<string, () => unknown> {
  const { highlight, setups, layouts, recordings } = edit
  const id = <T extends string>(all: readonly { id: string }[]) => (all.length > 0 ? random.pick(all).id : 'gone') as T
  const length = outputLength(highlight)
  const t = () => random.integer(-1_000_000, length + 1_000_000)
  const recorded = () => random.integer(-1_000_000, 61_000_000)
  const rect = ({ width, height }: { width: number; height: number }) => ({
    x: random.between(-0.2, 1) * width,
    y: random.between(-0.2, 1) * height,
    width: random.between(0, 1.2) * width,
    height: random.between(0, 1.2) * height,
  })
  const inside = () => ({
    x: random.between(0, 0.5),
    y: random.between(0, 0.5),
    width: random.between(0.1, 0.5),
    height: random.between(0.1, 0.5),
  })
  const passage = () => random.pick(highlight.passages).id
  const regions = () => setups.find((s) => s.id === SETUP)?.regions ?? []
  const aRegion = () => random.pick(regions()) as Region | undefined
  const region = () => id<RegionId>(regions())
  const cue = () => id<CueId>(highlight.words.cues)
  const panel = () => id<PanelId>(layouts.flatMap((l) => panelsOf(l.arrangement)))
  const shape = () => random.pick(STANDARD_SHAPES)
  const scope = () => ({ passageId: passage(), shape: random.pick(highlight.shapes), only: random.next() < 0.4 })
  const role = () => random.pick(STANDARD_ROLES)
  const layout = () => layouts.find((l) => l.id === LAYOUT) as Edit['layouts'][number]
  const recipe = (): WholeRecipe => ({
    recipe: {
      ...BASE,
      id: 'recipe' as never,
      name: 'Card evening',
      tags: [],
      setupId: null,
      layoutId: LAYOUT,
      brandId: null,
      shapes: [shape()],
      captions: null,
      marks: null,
      output: null,
      byItself: false,
    },
    setup: null,
    layout: layout(),
    brand: null,
  })
  const brand = (): Brand | null => null
  const join = (): Join => {
    const kind = random.pick(JOIN_KINDS)
    const common = { lengthMicros: random.integer(1, 40) * 50_000, easing: 'soft' as const }
    switch (kind) {
      case 'cut':
        return CUT
      case 'dip':
        return { kind, colour: '#16181a', ...common }
      case 'dissolve':
        return { kind, ...common }
      case 'push':
        return { kind, direction: 'left', within: random.pick(['canvas', 'panel'] as const), ...common }
      default:
        return { kind, direction: 'up', ...common }
    }
  }
  const kept = () => newSetup({ ...BASE, id: 'kept' as SetupId, ownedBy: null, name: 'Kept', regions: regions() })
  const aFinding = () =>
    random.pick(
      findingsOf(
        edit,
        { ...NOTHING_MEASURED, outlet: OUTLET, measure: (text, { size }) => text.length * size * 0.5 },
        tryRemedy,
      ),
    )
  const bed = (): Bed => ({
    id: newId<BedId>(),
    soundFileId: 'music' as SoundFileId,
    startMicros: random.integer(0, 60_000_000),
    inMicros: 0,
    gainDb: -12,
    fadeInMicros: 0,
    fadeOutMicros: 0,
    duckDb: 12,
  })
  const feed = () => ({
    kind: 'recording',
    recordingId: 'r' as RecordingId,
    setupId: SETUP,
    clock:
      random.next() < 0.5
        ? { kind: 'together', offsetMicros: random.integer(-5_000_000, 5_000_000) }
        : { kind: 'own', inMicros: random.integer(0, 50_000_000), speedPercent: 100 },
    heard: random.next() < 0.3,
  })
  const where = <T>(there: T | undefined, make: (there: T) => unknown) => (there === undefined ? null : make(there))
  return {
    'set-feed': () => ({ passageId: passage(), panelId: panel(), plays: feed(), label: 'Play another' }),
    'clear-feed': () => ({ passageId: passage(), panelId: panel() }),
    'set-name': () => ({ name: random.pick(['Last gate', 'Two up', 'x'.repeat(80)]) }),
    'toggle-shape': () => ({ shape: shape() }),
    'keep-draft': () => ({ isKept: random.pick([true, false]) }),
    'set-output': () => ({ output: { ...highlight.output, quality: random.pick(['standard', 'small'] as const) } }),
    'accept-finding': () => where(aFinding(), (finding) => ({ finding })),
    'restore-version': () => ({
      version: versionSchema.parse({ ...BASE, id: 'v', highlightId: highlight.id, name: 'Before', edit: sampleEdit() }),
    }),
    'drag-seam': () => {
      const at = scope()
      const shown = arrangementIn(edit, passageOf(edit, at.passageId), at.shape)
      return where(random.pick(solve(shown, at.shape).seams), (seam) => ({
        scope: at,
        seam,
        position: random.between(-100, 2500),
      }))
    },
    'place-inset': () => {
      const at = scope()
      return where(random.pick(layout().arrangement.insets), (inset) => ({
        scope: at,
        id: inset.id,
        rect: rect(at.shape),
      }))
    },
    'go-own-way': () => ({
      layoutId: LAYOUT,
      shapeId: random.pick(highlight.shapes).id,
      arrangement: layout().arrangement,
    }),
    'set-adapts': () => ({ layoutId: LAYOUT, adapts: random.next() < 0.7 }),
    'follow-others': () => ({ layoutId: LAYOUT, shapeId: shape().id }),
    'set-panel': () => ({
      layoutId: LAYOUT,
      id: panel(),
      label: 'Change panel',
      change: {
        fit: random.pick(['fill', 'whole'] as const),
        turn: random.pick([0, 1, 2, 3] as const),
        flip: random.next() < 0.5,
        zoom: random.between(1, 8),
      },
    }),
    'lay-out': () => ({ passageId: passage(), layoutId: LAYOUT, chosen: null, name: 'Face over game' }),
    'base-layout-on': () => ({ layoutId: LAYOUT, kept: layout() }),
    'swap-panels': () => ({ layoutId: LAYOUT, one: panel(), other: panel() }),
    'swap-bands': () => ({ layoutId: LAYOUT }),
    'equal-bands': () => ({ layoutId: LAYOUT }),
    'add-band': () => ({ layoutId: LAYOUT, id: newId<PanelId>(), role: role() }),
    'set-area': () => ({
      layoutId: LAYOUT,
      kind: random.pick(['titleArea', 'captionArea'] as const),
      there: random.next() < 0.6,
    }),
    'add-inset': () => ({ layoutId: LAYOUT, id: newId<PanelId>(), insetId: newId<InsetId>(), role: role() }),
    'remove-panel': () => ({ layoutId: LAYOUT, id: panel() }),
    'set-gap': () => ({ layoutId: LAYOUT, gap: random.integer(0, 80) }),
    'set-backdrop': () => ({ layoutId: LAYOUT, backdrop: { kind: 'blur', role: role(), strength: 0.5, darken: 0.2 } }),
    'nudge-crop': () => ({
      passageId: passage(),
      scope: scope(),
      id: panel(),
      by: { dx: random.between(-0.5, 0.5), dy: random.between(-0.5, 0.5), zoom: random.between(0.5, 3) },
    }),
    'set-correction': () => ({
      passageId: passage(),
      correction: { panelId: panel(), shapeId: null, dx: random.between(-0.3, 0.3), dy: 0, zoom: 1.5 },
    }),
    'clear-crop': () => ({ passageId: passage(), id: panel() }),
    leapfrog: () => (highlight.passages.length > 2 ? { how: LEAPFROG, layoutIds: [LAYOUT, LAYOUT, LAYOUT] } : null),
    'add-mark': () => ({
      mark: newMark(newId<MarkId>(), {
        kind: random.pick(['handle', 'level', 'countdown', 'progress', 'endCard'] satisfies MarkKind[]) as Exclude<
          MarkKind,
          'picture'
        >,
      }),
      label: 'Add a mark',
    }),
    'set-mark': () =>
      where(random.pick(highlight.marks) as PictureMark | undefined, (mark) => ({
        mark,
        label: 'Change a mark',
        change: {},
      })),
    'place-mark': () => ({ id: id<MarkId>(highlight.marks), shape: random.pick(highlight.shapes), rect: rect(FRAME) }),
    'remove-mark': () => ({ id: id<MarkId>(highlight.marks) }),
    'trim-passage': () => ({ id: passage(), which: random.pick(['in', 'out'] as const), t: recorded() }),
    'slip-passage': () => ({ id: passage(), by: recorded() }),
    'set-picture-clock': () => ({
      id: passage(),
      picture: random.next() < 0.5 ? null : { inMicros: Math.max(0, recorded()), speedPercent: random.pick([50, 75]) },
    }),
    'set-own-picture': () => ({
      id: passage(),
      change:
        random.next() < 0.5 ? { speedPercent: random.pick([50, 75]) } : { slipMicros: -random.integer(0, 5_000_000) },
    }),
    'mend-short-shots': () => (highlight.passages.length > 2 ? { shots: shortShotsOf(edit, LEAPFROG) } : null),
    'cut-at-changes': () =>
      where(random.pick(highlight.passages), (p) => {
        const changes = Array.from({ length: random.integer(0, 4) }, recorded).sort((a, b) => a - b)
        const cuts = cutsAt(edit, p, changes, () => newId<PassageId>())
        const regionId = id<RegionId>(setups.find((s) => s.id === p.setupId)?.regions ?? [])
        const keys = [{ micros: p.inMicros, x: random.next(), y: random.next(), jump: false }]
        return {
          into: random.pick(['scenes', 'shots'] as const),
          cuts,
          parts: cuts.map(({ newId: passageId }) => ({
            passageId,
            setupId: p.setupId,
            layoutId: id<LayoutId>(layouts),
            cropPaths: [{ regionId, keys }],
          })),
        }
      }),
    'split-passage': () => ({ t: t(), newId: newId<PassageId>() }),
    'strike-stretch': () => ({ fromMicros: t(), toMicros: t() }),
    'restore-strike': () => ({
      id: passage(),
      strike: { fromMicros: Math.max(0, recorded()), toMicros: Math.max(0, recorded()) },
    }),
    'strike-all': () =>
      where(random.pick(highlight.passages), (p) => ({
        label: 'Strike out dead air',
        stretches: [{ passageId: p.id, strike: { fromMicros: p.inMicros + 100_000, toMicros: p.inMicros + 300_000 } }],
      })),
    'move-passage': () => ({
      from: random.integer(0, highlight.passages.length - 1),
      to: random.integer(0, highlight.passages.length - 1),
    }),
    'duplicate-passage': () => ({ id: passage(), newId: newId<PassageId>() }),
    'remove-passage': () => ({ id: passage() }),
    'insert-passages': () => ({
      added: [{ ...random.pick(highlight.passages), id: newId<PassageId>() }] satisfies Passage[],
      after: passage(),
    }),
    'set-passages': () => ({ passages: highlight.passages, recordings }),
    'set-speed': () => ({ id: passage(), percent: random.pick([25, 50, 100, 133, 400]) }),
    'set-sound': () => ({
      id: passage(),
      part: { gainDb: random.integer(-60, 24), muted: random.next() < 0.2, fadeInMicros: random.integer(0, 3_000_000) },
    }),
    'set-join': () => ({ id: passage(), join: join() }),
    'set-all-joins': () => ({ join: join() }),
    'set-join-timing': () => ({ timing: random.pick(['hold', 'overlap'] as const) }),
    'end-at': () => ({ t: t() }),
    'apply-recipe': () => ({ passageId: passage(), whole: recipe() }),
    'apply-brand': () => ({ brand: brand() }),
    'resize-region': () => ({ id: region(), bounds: inside(), label: 'Resize' }),
    'set-region-pixels': () => ({ frame: FRAME, id: region(), pixels: rect(FRAME), label: 'Move region' }),
    'set-focus': () => ({
      frame: FRAME,
      id: region(),
      pixels: random.next() < 0.2 ? null : rect(FRAME),
      label: 'Set focus',
    }),
    'set-region-role': () => ({ id: region(), role: role() }),
    'add-region': () => ({ id: newId<RegionId>(), setupId: SETUP, role: role() }),
    'draw-region': () => ({ setupId: SETUP, frame: FRAME, id: newId<RegionId>(), pixels: rect(FRAME) }),
    'remove-region': () => ({ id: region() }),
    'set-region': () => ({
      id: region(),
      label: 'Lock',
      change: { locked: random.next() < 0.3, proportion: random.pick([null, 16 / 9]) },
    }),
    'copy-region': () => ({ id: region(), copyId: newId<RegionId>() }),
    'order-region': () => ({ id: region(), by: random.pick([1, -1] as const) }),
    'accept-proposals': () => ({
      setupId: SETUP,
      proposals: [
        { role: 'face', bounds: { x: 0.7, y: 0.6, width: 0.25, height: 0.25 } },
        { role: 'chat', bounds: { x: 0, y: 0, width: 0.2, height: 1 } },
      ],
    }),
    'reject-proposal': () => ({
      setupId: SETUP,
      proposal: { role: 'face', bounds: { x: 0.7, y: 0.6, width: 0.25, height: 0.25 } },
    }),
    'confirm-regions': () => ({ setupId: SETUP }),
    'apply-setup': () => ({ setupId: SETUP, kept: kept() }),
    'follow-setup': () => ({ kept: kept() }),
    'base-setup-on': () => ({ setupId: SETUP, kept: kept() }),
    'shift-region': () =>
      where(aRegion(), (r) => ({ passageId: passage(), frame: FRAME, region: r, pixels: rect(FRAME) })),
    'clear-shift': () => where(aRegion(), (r) => ({ passageId: passage(), region: r })),
    'set-path': () =>
      where(aRegion(), (r) => ({
        passageId: passage(),
        region: r,
        keys: Array.from({ length: random.integer(0, 5) }, (_, n) => ({
          micros: n * 1_000_000,
          x: random.next(),
          y: random.next(),
          jump: false,
        })),
      })),
    'do-remedies': () => where(aFinding(), ({ remedy }) => ({ remedies: remedy ? [remedy] : [], label: 'Fix' })),
    'insert-bed': () => ({ bed: bed() }),
    'change-bed': () => ({ id: id<BedId>(highlight.beds), part: { startMicros: random.integer(0, 60_000_000) } }),
    'remove-bed': () => ({ id: id<BedId>(highlight.beds) }),
    'hold-peaks': () => ({ limitDb: random.pick([null, -1, -6]) }),
    'change-gain': () => ({ db: random.pick([-0.5, 0.5]), limitDb: null }),
    'set-cue-text': () => ({ id: cue(), text: random.pick(WORDS) }),
    'split-caption': () => ({ id: cue(), at: random.integer(0, 12), newId: newId<CueId>() }),
    'join-before': () => ({ id: cue() }),
    'remove-cue': () => ({ id: cue() }),
    'move-cue-edge': () => ({ id: cue(), which: random.pick(['from', 'to'] as const), t: Math.max(0, recorded()) }),
    'lengthen-cue': () => where(random.pick(highlight.words.cues), (c) => ({ id: c.id, toMicros: c.toMicros })),
    'add-cue': () => ({ t: t(), newId: newId<CueId>() }),
    'time-cues': () => ({
      timed: edit.highlight.words.cues.slice(0, 1).map(({ id, fromMicros, toMicros, text }) => ({
        id,
        fromMicros,
        toMicros: toMicros + 1000,
        words: text ? [{ text: text.slice(0, 20), fromMicros, toMicros }] : [],
      })),
    }),
    'set-cues': () => ({
      recordingId: 'r' as RecordingId,
      loose: [{ text: 'Stay low', fromMicros: 13_000_000, toMicros: 15_000_000, words: [], voice: 'Wren' }],
      label: 'Read captions',
    }),
    'set-speakers-by-name': () => ({
      names: new Map(highlight.words.cues.map((c) => [c.id, random.pick(['Wren', 'Odo'])])),
    }),
    'take-out-fillers': () => ({
      fillers: highlight.words.cues.slice(0, 2).flatMap((cue) =>
        timedTokens(cue)
          .slice(0, random.pick([1, 2, 9]))
          .map(({ from, to, ...heard }) => ({ cueId: cue.id, from, to, heard: cue.words.length > 0 ? heard : null })),
      ),
      alsoHeard: random.pick([true, false]),
    }),
    'replace-all': () => ({
      found: findText(highlight.words.cues, 'low', false),
      replacement: random.pick(['high', '', 'x'.repeat(200)]),
    }),
    'set-captions': () => ({
      label: 'Style of captions',
      change: { style: random.pick(CAPTION_STYLES).style, shown: random.next() < 0.5 },
    }),
    'add-title': () => ({ id: newId<TitleId>(), text: random.pick(WORDS).slice(0, 500) }),
    'edit-title': () => ({
      id: id<TitleId>(highlight.words.titles),
      label: 'When a title is on',
      change: { fromMicros: random.integer(0, 5_000_000), toMicros: null },
    }),
    'change-style': () => ({ titleId: null, change: { size: 0.05 } }),
    'remove-title': () => ({ id: id<TitleId>(highlight.words.titles) }),
    'add-speaker': () => ({ id: newId<SpeakerId>() }),
    'edit-speaker': () => ({
      id: id<SpeakerId>(highlight.words.speakers),
      change: { name: random.pick(['Wren', 'Odo', ' ']) },
    }),
    'remove-speaker': () => ({ id: id<SpeakerId>(highlight.words.speakers) }),
    'set-speaker': () => ({
      id: cue(),
      speakerId: highlight.words.speakers.length > 0 ? id<SpeakerId>(highlight.words.speakers) : null,
    }),
  }
}
