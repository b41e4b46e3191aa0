import { expect, it } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import { fitInside } from '@/core/geometry/rect'
import type { Edit } from '@/core/model/edit'
import {
  newId,
  type CueId,
  type MarkId,
  type PassageId,
  type RegionId,
  type SetupId,
  type SpeakerId,
} from '@/core/model/ids'
import { MAX_MARKS, newMark } from '@/core/model/pictureMark'
import { MAX_SPEAKERS } from '@/core/model/words'
import { Session } from '@/store/session'
import { COMMANDS } from './commands'
import { applyRemedy, tryRemedy } from './remedies'

const FACE = 'f' as RegionId
const FRAME = { width: 1920, height: 1080 }
const BOUNDS = { x: 0, y: 0, width: 0.25, height: 0.25 }
const PIXELS = { x: 0, y: 0, width: 480, height: 270 }

const region = (edit: Edit) => {
  const [found] = edit.setups[0]?.regions ?? []
  if (!found) throw new Error('the sample has changed')
  return found
}

function lockedEdit(): Edit {
  const edit = sampleEdit()
  region(edit).locked = true
  return edit
}

function fullEdit(): Edit {
  const edit = sampleEdit()
  edit.highlight.marks = Array.from({ length: MAX_MARKS }, () => newMark(newId<MarkId>(), { kind: 'handle' }))
  edit.highlight.words.speakers = Array.from({ length: MAX_SPEAKERS }, (_, n) => ({
    id: newId<SpeakerId>(),
    name: `Speaker ${n}`,
    colour: null,
  }))
  return edit
}

/** What each command that may refuse does refuse, and what it says then. */
const REFUSED: Record<string, { edit: () => Edit; args: unknown; why: string }> = {
  'resize-region': { edit: lockedEdit, args: { id: FACE, bounds: BOUNDS, label: 'Resize' }, why: '“Wren” is locked' },
  'set-region-pixels': {
    edit: lockedEdit,
    args: { id: FACE, frame: FRAME, pixels: PIXELS, label: 'Move' },
    why: '“Wren” is locked',
  },
  'shift-region': {
    edit: lockedEdit,
    args: { passageId: 'p', frame: FRAME, region: { id: FACE, name: 'Wren' }, pixels: PIXELS },
    why: '“Wren” is locked',
  },
  'take-out-fillers': { edit: sampleEdit, args: { fillers: [], alsoHeard: true }, why: 'there are none' },
  'keep-draft': { edit: sampleEdit, args: { isKept: true }, why: 'this is no draft' },
  'toggle-shape': {
    edit: sampleEdit,
    args: { shape: { id: 'tall', width: 1080, height: 1920 } },
    why: 'a highlight has at least one shape',
  },
  'add-mark': {
    edit: fullEdit,
    args: { mark: newMark(newId<MarkId>(), { kind: 'handle' }), label: 'Add a mark' },
    why: `there are ${MAX_MARKS} marks at most`,
  },
  'cut-at-changes': {
    edit: sampleEdit,
    args: { into: 'shots', cuts: [], parts: [] },
    why: 'nothing changes within a passage',
  },
  'time-cues': { edit: sampleEdit, args: { timed: [] }, why: 'no word was heard' },
  'split-passage': {
    edit: sampleEdit,
    args: { t: 0, newId: newId<PassageId>() },
    why: 'the playhead is on a cut, where there is nothing to split',
  },
  'remove-passage': { edit: sampleEdit, args: { id: 'p' }, why: 'a highlight has at least one passage' },
  'split-caption': {
    edit: sampleEdit,
    args: { id: 'gone' as CueId, at: 3, newId: newId<CueId>() },
    why: 'there is nothing to split off',
  },
  'add-cue': {
    edit: sampleEdit,
    args: { t: 99_000_000, newId: newId<CueId>() },
    why: 'there is no room for a caption here',
  },
  'add-speaker': {
    edit: fullEdit,
    args: { id: newId<SpeakerId>() },
    why: `there are ${MAX_SPEAKERS} people who speak at most`,
  },
  'edit-speaker': { edit: fullEdit, args: { id: 'any', change: { name: ' ' } }, why: 'a speaker needs a name' },
}

const sessionOf = (edit: Edit) => new Session(edit, [], 0, () => Promise.resolve('written' as const))

it('every command that may refuse is tried here', () => {
  expect(
    [...COMMANDS.values()]
      .filter((c) => c.mayRefuse)
      .map((c) => c.id)
      .sort(),
  ).toEqual(Object.keys(REFUSED).sort())
})

it.each(Object.entries(REFUSED))('%s says why it is not done, and changes nothing', (id, { edit, args, why }) => {
  const session = sessionOf(edit())
  const before = structuredClone(session.value)
  const command = COMMANDS.get(id)
  expect(command?.(session, args as never)).toBe(false)
  expect(session.store.getState().refusal).toMatchObject({ why })
  expect(session.value).toEqual(before)
  expect(session.store.getState().history.steps).toEqual([])
})

const SMALLER = { x: 0.75, y: 0.72, width: 0.2, height: 0.2 }
const tighten = { kind: 'tighten-region', setupId: 's' as SetupId, regionId: FACE, bounds: SMALLER } as const

it('no remedy moves a locked region', () => {
  expect(tryRemedy(lockedEdit(), tighten)).toBeNull()
  const edit = lockedEdit()
  applyRemedy(edit, tighten)
  expect(edit).toEqual(lockedEdit())
})

it('a region that a remedy makes smaller takes its focus along, and is a guess no more', () => {
  const edit = sampleEdit()
  const { bounds } = region(edit)
  region(edit).focus = { x: bounds.x + bounds.width - 0.02, y: bounds.y, width: 0.02, height: 0.02 }
  if (edit.setups[0]) edit.setups[0].isGuess = true
  const tried = tryRemedy(edit, tighten)
  if (!tried) throw new Error('refused')
  const { focus } = region(tried)
  if (!focus) throw new Error('the focus has gone')
  expect(fitInside(focus, SMALLER)).toEqual(focus)
  expect(tried.setups[0]?.isGuess).toBe(false)
})
