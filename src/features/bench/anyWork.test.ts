import { expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import { compose } from '@/core/compose/compose'
import { applyRemedy } from '@/core/findings/applyRemedy'
import type { Remedy } from '@/core/findings/finding'
import { findingsOf, NOTHING_KNOWN } from '@/core/findings/findings'
import { readEdit } from '@/core/interchange/readEdit'
import { STARTING_LAYOUTS, arrangeFor } from '@/core/layout/startingLayouts'
import { solve } from '@/core/layout/solve'
import { arrangementFor } from '@/core/layout/arrangementFor'
import { panelsOf } from '@/core/layout/tree'
import type { Edit } from '@/core/model/edit'
import type { BedId, CueId, InsetId, LayoutId, MarkId, PanelId, PassageId, RecordingId, RegionId, SetupId, SoundFileId, SpeakerId, TitleId } from '@/core/model/ids'
import { CUT, JOIN_KINDS, type Join } from '@/core/model/join'
import { MOST, overfull } from '@/core/model/overfull'
import { newMark, type MarkKind } from '@/core/model/pictureMark'
import { startingOutlets } from '@/core/model/outlet'
import { STANDARD_ROLES } from '@/core/model/region'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { outputLength, timeMapOf } from '@/core/time/timeMap'
import { findText } from '@/core/words/cueEdits'
import { CAPTION_STYLES } from '@/core/words/textStyles'
import { Session } from '@/store/session'
import * as regions from './edits'
import { accept, holdPeaks } from './gauges/remedies'
import { addMark, placeMark, removeMark, setMark } from './marks/marking'
import * as arranging from './shapes/arranging'
import { clearFeed, setFeed } from './shapes/feeding'
import { setPath, shiftRegion } from './passageRegions'
import { applyLeapfrog, setOwnPicture } from './shapes/leapfrogging'
import * as cuts from './sheet/cuts'
import * as wording from './words/wording'

type Random = ReturnType<typeof seeded>

const FRAME = { width: 1920, height: 1080 }
const SETUP = 's' as SetupId
const LAYOUT = 'l' as LayoutId
const [OUTLET = null] = startingOutlets('2026-11-25T10:00:00.000Z')
const WORDS = ['Last gate', 'no lift', 'stay with it, stay low', '', 'Über den Grat', '最後の', 'a'.repeat(90), 'low '.repeat(400)]

/** One thing that a person can do, with what chance puts into it. `adding`: how often it is something that makes more. */
function work(session: Session<Edit>, random: Random, adding: number): void {
  const { highlight, setups, layouts } = session.value
  const id = <T extends string>(all: readonly { id: string }[]) => (all.length > 0 ? random.pick(all).id : 'gone') as T
  const gesture = random.pick(['one', 'other', crypto.randomUUID()])
  const length = outputLength(highlight)
  const t = () => random.integer(-1_000_000, length + 1_000_000)
  const recorded = () => random.integer(-1_000_000, 61_000_000)
  const rect = ({ width, height }: { width: number; height: number }) => ({ x: random.between(-0.2, 1) * width, y: random.between(-0.2, 1) * height, width: random.between(0, 1.2) * width, height: random.between(0, 1.2) * height })
  const passage = () => id<PassageId>(highlight.passages)
  const region = () => id<RegionId>(setups.find((s) => s.id === SETUP)?.regions ?? [])
  const cue = () => id<CueId>(highlight.words.cues)
  const panel = () => id<PanelId>(layouts.flatMap((l) => panelsOf(l.arrangement)))
  const mark = () => random.pick(highlight.marks)
  const shape = () => random.pick(STANDARD_SHAPES)
  const scope = () => ({ shape: random.pick(highlight.shapes), only: random.next() < 0.4 })
  const role = () => random.pick(STANDARD_ROLES)
  const join = (): Join => {
    const kind = random.pick(JOIN_KINDS)
    const common = { lengthMicros: random.integer(1, 40) * 50_000, easing: 'soft' as const }
    return kind === 'cut' ? CUT : kind === 'dip' ? { kind, colour: '#16181a', ...common } : kind === 'dissolve' ? { kind, ...common } : kind === 'push' ? { kind, direction: 'left', within: random.pick(['canvas', 'panel'] as const), ...common } : { kind, direction: 'up', ...common }
  }
  const known = (of: () => string, all: readonly { id: string }[]) => all.some((a) => a.id === of())
  const aRegion = () => random.pick(setups.find((s) => s.id === SETUP)?.regions ?? [])
  const more: (() => unknown)[] = [
    () => {
      const found = aRegion()
      if (found) shiftRegion(session, passage(), FRAME, found, rect(FRAME), gesture)
    },
    () => {
      const found = aRegion()
      if (found) setPath(session, passage(), found, Array.from({ length: random.integer(0, 5) }, (_, n) => ({ micros: n * 1_000_000, x: random.next(), y: random.next(), jump: false })))
    },
    () => regions.toggleShape(session, shape()),
    () => regions.addRegion(session, SETUP, role()),
    () => regions.drawRegion(session, SETUP, FRAME, crypto.randomUUID() as RegionId, rect(FRAME), gesture),
    () => regions.copyRegion(session, region()),
    () => cuts.splitAt(session, t()),
    () => cuts.duplicatePassage(session, passage()),
    () => cuts.insertBed(session, { id: crypto.randomUUID() as BedId, soundFileId: 'music' as SoundFileId, startMicros: random.integer(0, 60_000_000), inMicros: 0, gainDb: -12, fadeInMicros: 0, fadeOutMicros: 0, duckDb: 12 }),
    () => arranging.goOwnWay(session, LAYOUT, random.pick(highlight.shapes)),
    () => arranging.addBand(session, LAYOUT, role()),
    () => arranging.addInset(session, LAYOUT, role()),
    () => arranging.nudgeCrop(session, random.pick(highlight.passages).id, scope(), panel(), { dx: random.between(-0.5, 0.5), dy: random.between(-0.5, 0.5), zoom: random.between(0.5, 3) }, gesture),
    () => setFeed(session, random.pick(highlight.passages).id, panel(), { kind: 'recording', recordingId: 'r' as RecordingId, setupId: SETUP, clock: random.next() < 0.5 ? { kind: 'together', offsetMicros: random.integer(-5_000_000, 5_000_000) } : { kind: 'own', inMicros: random.integer(0, 50_000_000), speedPercent: 100 }, heard: random.next() < 0.3 }, 'Play another', gesture),
    () => wording.addCueAt(session, t()),
    () => wording.splitAt(session, cue(), random.integer(0, 12)),
    () => wording.addTitle(session, random.pick(WORDS).slice(0, 500)),
    () => wording.addSpeaker(session),
    () => addMark(session, newMark(crypto.randomUUID() as MarkId, { kind: random.pick(['handle', 'level', 'countdown', 'progress', 'endCard'] satisfies MarkKind[]) as Exclude<MarkKind, 'picture'> }), 'Add a mark'),
  ]
  const seen = () => findingsOf(session.value, { ...NOTHING_KNOWN, outlet: OUTLET, measure: (text, { size }) => text.length * size * 0.5 })
  const other: (() => unknown)[] = [
    () => {
      const found = random.pick(seen())
      if (found?.remedy) session.change('Put right', crypto.randomUUID(), (draft) => applyRemedy(draft, found.remedy as Remedy))
      else if (found) accept(session, found)
    },
    () => holdPeaks(session, random.pick([null, -1, -6])),
    () => highlight.passages.length > 2 && applyLeapfrog(session, { bands: random.pick([2, 3] as const), role: 'game', directions: ['left', 'right', 'up'], lengthMicros: 400_000, easing: 'soft' }),
    () => setOwnPicture(session, passage(), random.next() < 0.5 ? { speedPercent: random.pick([50, 75]) } : { slipMicros: -random.integer(0, 5_000_000) }),
    () => regions.acceptProposals(session, SETUP, [{ role: 'face', bounds: { x: 0.7, y: 0.6, width: 0.25, height: 0.25 } }, { role: 'chat', bounds: { x: 0, y: 0, width: 0.2, height: 1 } }]),
    () => regions.setRegion(session, region(), 'Lock', { locked: random.next() < 0.5, proportion: random.pick([null, 16 / 9]) }),
    () => regions.setName(session, random.pick(['Last gate', 'Two up', 'x'.repeat(80)]), gesture),
    () => regions.setRegionPixels(session, FRAME, region(), rect(FRAME), 'Move region', gesture),
    () => regions.setFocus(session, FRAME, region(), random.next() < 0.2 ? null : rect(FRAME), 'Set focus', gesture),
    () => regions.setRegionRole(session, region(), role()),
    () => regions.removeRegion(session, region()),
    () => regions.orderRegion(session, region(), random.pick([1, -1] as const)),
    () => cuts.trimPassage(session, passage(), random.pick(['in', 'out'] as const), recorded(), gesture),
    () => cuts.trimAt(session, random.pick(['in', 'out'] as const), t()),
    () => cuts.slipPassage(session, passage(), recorded(), gesture),
    () => cuts.strikeStretch(session, t(), t()),
    () => cuts.restoreStrike(session, passage(), { fromMicros: Math.max(0, recorded()), toMicros: Math.max(0, recorded()) }),
    () => highlight.passages.length > 1 && cuts.movePassage(session, random.integer(0, highlight.passages.length - 1), random.integer(0, highlight.passages.length - 1)),
    () => highlight.passages.length > 1 && cuts.removePassage(session, passage()),
    () => cuts.setSpeed(session, passage(), random.pick([25, 50, 100, 133, 400]), gesture),
    () => cuts.setSound(session, passage(), { gainDb: random.integer(-60, 24), muted: random.next() < 0.2, fadeInMicros: random.integer(0, 3_000_000) }, gesture),
    () => cuts.setJoin(session, passage(), join(), gesture),
    () => cuts.setAllJoins(session, join()),
    () => cuts.setJoinTiming(session, random.pick(['hold', 'overlap'] as const)),
    () => cuts.changeBed(session, id<BedId>(highlight.beds), { startMicros: random.integer(0, 60_000_000) }, gesture),
    () => cuts.removeBed(session, id<BedId>(highlight.beds)),
    () => {
      const at = scope()
      const seam = random.pick(solve(arrangementFor(layouts.find((l) => l.id === LAYOUT) as Edit['layouts'][number], at.shape), at.shape).seams)
      if (seam) arranging.dragSeam(session, LAYOUT, at, seam, random.between(-100, 2500), gesture)
    },
    () => {
      const inset = random.pick(layouts.find((l) => l.id === LAYOUT)?.arrangement.insets ?? [])
      const at = scope()
      if (inset) arranging.placeInset(session, LAYOUT, at, inset.id, rect(at.shape), gesture)
    },
    () => arranging.followOthers(session, LAYOUT, shape().id),
    () => arranging.setPanel(session, LAYOUT, panel(), 'Change panel', { fit: random.pick(['fill', 'whole'] as const), turn: random.pick([0, 1, 2, 3] as const), flip: random.next() < 0.5, zoom: random.between(1, 8) }, gesture),
    () => {
      const chosen = random.pick(STARTING_LAYOUTS)
      const arrangement = arrangeFor(chosen, (setups.find((s) => s.id === SETUP)?.regions ?? []).map((r) => r.role), () => crypto.randomUUID() as PanelId, () => crypto.randomUUID() as InsetId)
      arranging.applyLayout(session, random.pick(highlight.passages).id, { name: chosen.name, arrangement, perShape: {}, basedOn: null }, random.next() < 0.5)
    },
    () => arranging.swapPanels(session, LAYOUT, panel(), panel()),
    () => arranging.swapBands(session, LAYOUT),
    () => arranging.equalBands(session, LAYOUT),
    () => arranging.removePanel(session, LAYOUT, panel()),
    () => arranging.setArea(session, LAYOUT, random.pick(['titleArea', 'captionArea'] as const), random.next() < 0.6),
    () => arranging.setGap(session, LAYOUT, random.integer(0, 80), gesture),
    () => arranging.clearCrop(session, random.pick(highlight.passages).id, panel()),
    () => clearFeed(session, random.pick(highlight.passages).id, panel()),
    () => wording.setCueText(session, cue(), random.pick(WORDS), gesture),
    () => known(cue, highlight.words.cues) && wording.joinBefore(session, cue()),
    () => wording.removeCue(session, cue()),
    () => wording.replaceAll(session, findText(highlight.words.cues, 'low', false), random.pick(['high', '', 'x'.repeat(200)])),
    () => wording.moveCueEdge(session, cue(), random.pick(['from', 'to'] as const), Math.max(0, recorded()), gesture),
    () => wording.editTitle(session, id<TitleId>(highlight.words.titles), 'When a title is on', { fromMicros: random.integer(0, 5_000_000), toMicros: null }, gesture),
    () => wording.removeTitle(session, id<TitleId>(highlight.words.titles)),
    () => wording.removeSpeaker(session, id<SpeakerId>(highlight.words.speakers)),
    () => wording.setSpeaker(session, cue(), highlight.words.speakers.length > 0 ? id<SpeakerId>(highlight.words.speakers) : null),
    () => wording.setCaptions(session, 'Style of captions', { style: random.pick(CAPTION_STYLES).style, shown: random.next() < 0.5 }, gesture),
    () => placeMark(session, id<MarkId>(highlight.marks), random.pick(highlight.shapes), rect(FRAME), gesture),
    () => highlight.marks.length > 0 && setMark(session, mark(), 'Change a mark', {}, gesture),
    () => removeMark(session, id<MarkId>(highlight.marks)),
  ]
  random.pick(random.next() < adding ? more : other)()
}

const numbersIn = (value: unknown): number[] => (typeof value === 'number' ? [value] : value && typeof value === 'object' ? Object.values(value).flatMap(numbersIn) : [])

/** Does so many things from the sample on, looks at the edit after each, and takes them all back and does them again. Gives the session. */
function workOn(seed: number, things: number, adding: number): Session<Edit> {
  const random = seeded(seed)
  const session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const), overfull)
  const history = () => session.store.getState().history
  const begin = structuredClone(session.value)
  for (let n = 0; n < things; n++) {
    work(session, random, adding)
    const where = `seed ${seed}, after ${n + 1} things, “${history().steps.at(-1)?.label ?? ''}”`
    const read = readEdit(JSON.parse(JSON.stringify(session.value)))
    expect(read.ok ? [] : read.problems, where).toEqual([])
    if (read.ok) expect(read.edit, where).toEqual(session.value)
    const map = timeMapOf(session.value.highlight)
    expect(numbersIn(compose(session.value, map, random.pick(session.value.highlight.shapes), random.integer(0, map.lengthMicros - 1))).every(Number.isFinite), where).toBe(true)
  }
  const end = structuredClone(session.value)
  const done = history().position
  while (history().position > 0) session.undo()
  // What steps refer to stays.
  expect({ ...session.value, layouts: session.value.layouts.filter((l) => begin.layouts.some((b) => b.id === l.id)) }, `seed ${seed}, all taken back`).toEqual(begin)
  while (history().position < done) session.redo()
  expect(session.value, `seed ${seed}, all done again`).toEqual(end)
  return session
}

it.each([0, 1, 2, 3, 4, 5].map((n) => SEED + n))('whatever is done in whatever order can be stored, read again, composed, and undone and redone to the letter (seed %i)', (seed) => {
  workOn(seed, 120, 0.25)
})

it.each([SEED, SEED + 1])('nothing comes to more than can be stored, and what would is refused with its reason (seed %i)', (seed) => {
  const { refusal } = workOn(seed, 220, 0.95).store.getState()
  expect(refusal?.label).not.toBe('')
  expect(Object.keys(MOST)).toContain(refusal?.what)
})
