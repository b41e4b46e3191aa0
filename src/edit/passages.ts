import type { Draft } from 'immer'
import { remedyOf, shortShots, withOwnPicture, type Leapfrog, type ShortShot } from '@/core/cut/leapfrog'
import {
  mergeStrikes,
  onFrame,
  reorder,
  restore,
  slip,
  split,
  strikeOut,
  strikeOutput,
  trim,
  type Footage,
} from '@/core/cut/passages'
import { passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { JoinTiming } from '@/core/model/highlight'
import type { PassageId } from '@/core/model/ids'
import type { Join } from '@/core/model/join'
import type { Passage, PassageSound, PictureClock, Strike } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, toRecordingMicros } from '@/core/time/timeMap'
import { command, type Host } from './command'

/** When things happen: cut points, strikes, order, speed, joins, and the sound of passages. */

const footageOf =
  (edit: Edit) =>
  (passage: Passage): Footage =>
    recordingOf(edit, passage.recordingId)

function changePassage(
  draft: Draft<Edit>,
  id: PassageId,
  change: (passage: Passage, footage: Footage) => Passage,
): void {
  draft.highlight.passages = draft.highlight.passages.map((p) => (p.id === id ? change(p, footageOf(draft)(p)) : p))
}

/** Moves a passage's in or out point to the frame nearest to recording time `t`. */
export const trimPassage = command<{ id: PassageId; which: 'in' | 'out'; t: Micros }>({
  id: 'trim-passage',
  label: ({ which }) => (which === 'in' ? 'Set in point' : 'Set out point'),
  apply: (draft, { id, which, t }) => changePassage(draft, id, (p, footage) => trim(p, which, t, footage)),
})

/**
 * Sets the in or out point of the passage that plays at output time `t` there. Gives the output time of what was on
 * screen then, which has moved: the passage's first frame, or its last.
 */
export function trimAt(host: Host, which: 'in' | 'out', t: Micros): Micros {
  const at = toRecordingMicros(timeMapOf(host.value.highlight), t)
  if (!at) return t
  trimPassage(host, { id: at.passage.id, which, t: at.recordingMicros })
  const placed = timeMapOf(host.value.highlight).passages.find((p) => p.passage.id === at.passage.id)
  if (!placed) return t
  return which === 'in' ? placed.startMicros : placed.endMicros - 1
}

export const slipPassage = command<{ id: PassageId; by: Micros }>({
  id: 'slip-passage',
  label: 'Slip',
  apply: (draft, { id, by }) => changePassage(draft, id, (p, footage) => slip(p, by, footage)),
})

/** Has a passage's picture run by itself, or (null) with its sound. */
export const setPictureClock = command<{ id: PassageId; picture: PictureClock | null }>({
  id: 'set-picture-clock',
  label: ({ picture }) => (picture ? 'Separate picture' : 'Picture with its sound'),
  apply: (draft, { id, picture }) => changePassage(draft, id, (p) => ({ ...p, picture })),
})

/** Shows a shot's picture alone slower, or from earlier on; cut points and sound stay as they are. */
export const setOwnPicture = command<{ id: PassageId; change: Parameters<typeof withOwnPicture>[1] }>({
  id: 'set-own-picture',
  label: ({ change }) => ('slipMicros' in change ? 'Show earlier' : `Picture at ${change.speedPercent} %`),
  apply: (draft, { id, change }) => changePassage(draft, id, (p) => withOwnPicture(p, change)),
})

/** The shots of a highlight that would be too short for a leapfrog. */
export function shortShotsOf(edit: Edit, how: Leapfrog): ShortShot[] {
  return shortShots(edit.highlight.passages, how, footageOf(edit))
}

/** Puts every short shot right that can be, as one step. */
export const mendShortShots = command<{ shots: readonly ShortShot[] }>({
  id: 'mend-short-shots',
  label: 'Fix short shots',
  apply: (draft, { shots }) => {
    for (const shot of shots) {
      const change = remedyOf(shot)
      if (change) changePassage(draft, shot.passageId, (p) => withOwnPicture(p, change))
    }
  },
})

/** Where a cut at output time `t` would fall; null at a passage's edge, where there is nothing to cut off. */
function splitIn(edit: Edit, t: Micros, newId: PassageId): Passage[] | null {
  const at = toRecordingMicros(timeMapOf(edit.highlight), t)
  if (!at) return null
  const cut = split(edit.highlight.passages, at.passage.id, at.recordingMicros, newId, footageOf(edit)(at.passage))
  return cut.length > edit.highlight.passages.length ? cut : null
}

/** Cuts the passage that plays at output time `t` in two there; the second part is called `newId`. */
export const splitPassage = command<{ t: Micros; newId: PassageId }>({
  id: 'split-passage',
  label: 'Split',
  refuse: (edit, { t, newId }) =>
    splitIn(edit, t, newId) ? null : 'the playhead is on a cut, where there is nothing to split',
  apply: (draft, { t, newId }) => {
    const cut = splitIn(draft, t, newId)
    if (cut) draft.highlight.passages = cut
  },
})

/** Strikes out everything between two output times; what follows moves up. */
export const strikeStretch = command<{ fromMicros: Micros; toMicros: Micros }>({
  id: 'strike-stretch',
  label: 'Strike out',
  apply: (draft, { fromMicros, toMicros }) => {
    draft.highlight.passages = strikeOutput(timeMapOf(draft.highlight), fromMicros, toMicros, footageOf(draft))
  },
})

export const restoreStrike = command<{ id: PassageId; strike: Strike }>({
  id: 'restore-strike',
  label: 'Restore',
  apply: (draft, { id, strike }) => changePassage(draft, id, (p) => restore(p, strike)),
})

/** Strikes out several stretches of several passages as one step. */
export const strikeAll = command<{ label: string; stretches: readonly { passageId: PassageId; strike: Strike }[] }>({
  id: 'strike-all',
  label: ({ label }) => label,
  apply: (draft, { stretches }) => {
    for (const { id } of draft.highlight.passages)
      changePassage(draft, id, (p, footage) => {
        const own = stretches.filter((s) => s.passageId === id).map(({ strike }) => onFrames(strike, footage))
        return mergeStrikes(own.filter((s) => s.toMicros > s.fromMicros)).reduce(strikeOut, p)
      })
  },
})

function onFrames({ fromMicros, toMicros }: Strike, footage: Footage): Strike {
  return { fromMicros: onFrame(footage, fromMicros), toMicros: onFrame(footage, toMicros) }
}

export const movePassage = command<{ from: number; to: number }>({
  id: 'move-passage',
  label: 'Move passage',
  apply: (draft, { from, to }) => {
    if (to >= 0 && to < draft.highlight.passages.length)
      draft.highlight.passages = reorder(draft.highlight.passages, from, to)
  },
})

export const duplicatePassage = command<{ id: PassageId; newId: PassageId }>({
  id: 'duplicate-passage',
  label: 'Duplicate passage',
  apply: (draft, { id, newId }) => {
    draft.highlight.passages = draft.highlight.passages.flatMap((p) => (p.id === id ? [p, { ...p, id: newId }] : [p]))
  },
})

export const removePassage = command<{ id: PassageId }>({
  id: 'remove-passage',
  label: 'Remove passage',
  refuse: ({ highlight }) => (highlight.passages.length === 1 ? 'a highlight has at least one passage' : null),
  apply: (draft, { id }) => {
    draft.highlight.passages = draft.highlight.passages.filter((p) => p.id !== id)
  },
})

/** Puts passages in, in their order, after the one with the id `after`; at the end when there is none. */
export const insertPassages = command<{ added: readonly Passage[]; after: PassageId | null; label?: string }>({
  id: 'insert-passages',
  label: ({ added, label }) => label ?? (added.length === 1 ? 'Add passage' : `Add ${added.length} passages`),
  apply: (draft, { added, after }) => {
    const { passages } = draft.highlight
    const at = passages.findIndex((p) => p.id === after)
    passages.splice(at < 0 ? passages.length : at + 1, 0, ...added)
  },
})

/** The same; gives the output time at which the last of them begins. */
export function addPassages(host: Host, added: readonly Passage[], after: PassageId | null): Micros {
  insertPassages(host, { added, after })
  return timeMapOf(host.value.highlight).passages.find((p) => p.passage.id === added.at(-1)?.id)?.startMicros ?? 0
}

/** Puts the cuts of a timeline in the place of what there is, and their recordings. */
export const setPassages = command<{ passages: readonly Passage[]; recordings: readonly Recording[] }>({
  id: 'set-passages',
  label: 'Bring in a timeline',
  apply: (draft, { passages, recordings }) => {
    draft.highlight.passages = [...passages]
    draft.recordings = [...recordings]
  },
})

export const setSpeed = command<{ id: PassageId; percent: number }>({
  id: 'set-speed',
  label: 'Set speed',
  apply: (draft, { id, percent }) =>
    changePassage(draft, id, (p) => ({ ...p, speedPercent: Math.min(400, Math.max(25, Math.round(percent))) })),
})

export const setSound = command<{ id: PassageId; part: Partial<PassageSound> }>({
  id: 'set-sound',
  label: 'Change sound',
  apply: (draft, { id, part }) => changePassage(draft, id, (p) => ({ ...p, sound: { ...p.sound, ...part } })),
})

export const setJoin = command<{ id: PassageId; join: Join }>({
  id: 'set-join',
  label: 'Change join',
  apply: (draft, { id, join }) => {
    passageOf(draft, id).join = join
  },
})

/** The same join between all passages. */
export const setAllJoins = command<{ join: Join }>({
  id: 'set-all-joins',
  label: 'Change all joins',
  apply: (draft, { join }) => {
    for (const p of draft.highlight.passages) p.join = { ...join } as Draft<Join>
  },
})

export const setJoinTiming = command<{ timing: JoinTiming }>({
  id: 'set-join-timing',
  label: 'Change join timing',
  apply: (draft, { timing }) => {
    draft.highlight.joinTiming = timing
  },
})

/** Leaves out what comes after output time `t`. */
export const endAt = command<{ t: Micros }>({
  id: 'end-at',
  label: 'End here',
  apply: ({ highlight }, { t }) => {
    const at = toRecordingMicros(timeMapOf(highlight), t)
    if (!at) return
    const index = highlight.passages.findIndex((p) => p.id === at.passage.id)
    const last = highlight.passages[index]
    if (!last || at.recordingMicros <= last.inMicros) return
    last.outMicros = at.recordingMicros
    highlight.passages = highlight.passages.slice(0, index + 1)
  },
})
