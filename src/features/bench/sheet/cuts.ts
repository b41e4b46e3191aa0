import type { Draft } from 'immer'
import { mergeStrikes, onFrame, reorder, restore, slip, split, strikeOut, strikeOutput, trim, type Footage } from '@/core/cut/passages'
import { passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { Bed } from '@/core/model/bed'
import type { JoinTiming } from '@/core/model/highlight'
import type { BedId, PassageId } from '@/core/model/ids'
import type { Join } from '@/core/model/join'
import type { Passage, PassageSound, PictureClock, Strike } from '@/core/model/passage'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, toRecordingMicros } from '@/core/time/timeMap'
import { newId } from '@/store/clock'
import type { EditSession } from '../edits'

/** What can be done to time: cutting, striking out, joining. Changes with the same `gesture` are undone together. */

const footageOf = (edit: Edit) => (passage: Passage): Footage => recordingOf(edit, passage.recordingId)

const once = () => crypto.randomUUID()

function editPassage(session: EditSession, label: string, gesture: string, id: PassageId, change: (passage: Passage, footage: Footage) => Passage): void {
  session.change(label, gesture, (draft) => {
    draft.highlight.passages = draft.highlight.passages.map((p) => (p.id === id ? change(p, footageOf(draft)(p)) : p))
  })
}

/** Moves a passage's in or out point to the frame nearest to recording time `t`. */
export function trimPassage(session: EditSession, id: PassageId, which: 'in' | 'out', t: Micros, gesture: string): void {
  editPassage(session, which === 'in' ? 'Set in point' : 'Set out point', gesture, id, (p, footage) => trim(p, which, t, footage))
}

/**
 * Sets the in or out point of the passage that plays at output time `t` there. Gives the output time of what was on screen then, which
 * has moved: the passage's first frame, or its last.
 */
export function trimAt(session: EditSession, which: 'in' | 'out', t: Micros): Micros {
  const at = toRecordingMicros(timeMapOf(session.value.highlight), t)
  if (!at) return t
  trimPassage(session, at.passage.id, which, at.recordingMicros, once())
  const placed = timeMapOf(session.value.highlight).passages.find((p) => p.passage.id === at.passage.id)
  return placed ? (which === 'in' ? placed.startMicros : placed.endMicros - 1) : t
}

export function slipPassage(session: EditSession, id: PassageId, by: Micros, gesture: string): void {
  editPassage(session, 'Slip', gesture, id, (p, footage) => slip(p, by, footage))
}

/** Has a passage's picture run by itself, or (null) with its sound. */
export function setPictureClock(session: EditSession, id: PassageId, picture: PictureClock | null): void {
  editPassage(session, picture ? 'Picture by itself' : 'Picture with its sound', once(), id, (p) => ({ ...p, picture }))
}

/** Cuts the passage that plays at output time `t` in two there. Says whether it could. */
export function splitAt(session: EditSession, t: Micros): boolean {
  const at = toRecordingMicros(timeMapOf(session.value.highlight), t)
  if (!at) return false
  const before = session.value.highlight.passages.length
  session.change('Split', once(), (draft) => {
    draft.highlight.passages = split(draft.highlight.passages, at.passage.id, at.recordingMicros, newId<PassageId>(), footageOf(draft)(at.passage))
  })
  return session.value.highlight.passages.length > before
}

/** Strikes out everything between two output times; what follows moves up. */
export function strikeStretch(session: EditSession, fromMicros: Micros, toMicros: Micros): void {
  session.change('Strike out', once(), (draft) => {
    draft.highlight.passages = strikeOutput(timeMapOf(draft.highlight), fromMicros, toMicros, footageOf(draft))
  })
}

export function restoreStrike(session: EditSession, id: PassageId, strike: Strike): void {
  editPassage(session, 'Restore', once(), id, (p) => restore(p, strike))
}

/** Strikes out several stretches of several passages as one step. */
export function strikeAll(session: EditSession, label: string, stretches: readonly { passageId: PassageId; strike: Strike }[]): void {
  session.change(label, once(), (draft) => {
    draft.highlight.passages = draft.highlight.passages.map((p) => {
      const own = stretches.filter((s) => s.passageId === p.id).map(({ strike }) => onFrames(strike, footageOf(draft)(p)))
      return mergeStrikes(own.filter((s) => s.toMicros > s.fromMicros)).reduce(strikeOut, p)
    })
  })
}

function onFrames({ fromMicros, toMicros }: Strike, footage: Footage): Strike {
  return { fromMicros: onFrame(footage, fromMicros), toMicros: onFrame(footage, toMicros) }
}

export function movePassage(session: EditSession, from: number, to: number): void {
  if (from === to || to < 0 || to >= session.value.highlight.passages.length) return
  session.change('Move passage', once(), (draft) => {
    draft.highlight.passages = reorder(draft.highlight.passages, from, to)
  })
}

export function duplicatePassage(session: EditSession, id: PassageId): void {
  session.change('Duplicate passage', once(), (draft) => {
    draft.highlight.passages = draft.highlight.passages.flatMap((p) => (p.id === id ? [p, { ...p, id: newId<PassageId>() }] : [p]))
  })
}

/** Takes a passage out; the last one stays. */
export function removePassage(session: EditSession, id: PassageId): void {
  if (session.value.highlight.passages.length === 1) return
  session.change('Remove passage', once(), (draft) => {
    draft.highlight.passages = draft.highlight.passages.filter((p) => p.id !== id)
  })
}

/** Puts passages in, in their order, after the one with the id `after`; at the end when there is none. Gives the output time at which the last of them begins. */
export function insertPassages(session: EditSession, added: readonly Passage[], after: PassageId | null): Micros {
  session.change(added.length === 1 ? 'Add passage' : `Add ${added.length} passages`, once(), (draft) => {
    const { passages } = draft.highlight
    const at = passages.findIndex((p) => p.id === after)
    passages.splice(at < 0 ? passages.length : at + 1, 0, ...added)
  })
  return timeMapOf(session.value.highlight).passages.find((p) => p.passage.id === added.at(-1)?.id)?.startMicros ?? 0
}

export function setSpeed(session: EditSession, id: PassageId, percent: number, gesture: string): void {
  editPassage(session, 'Set speed', gesture, id, (p) => ({ ...p, speedPercent: Math.min(400, Math.max(25, Math.round(percent))) }))
}

export function setSound(session: EditSession, id: PassageId, part: Partial<PassageSound>, gesture: string): void {
  editPassage(session, 'Change sound', gesture, id, (p) => ({ ...p, sound: { ...p.sound, ...part } }))
}

export function setJoin(session: EditSession, id: PassageId, join: Join, gesture: string): void {
  session.change('Change join', gesture, (draft) => {
    passageOf(draft, id).join = join
  })
}

/** The same join between all passages. */
export function setAllJoins(session: EditSession, join: Join): void {
  session.change('Change all joins', once(), (draft) => {
    for (const p of draft.highlight.passages) p.join = { ...join } as Draft<Join>
  })
}

export function setJoinTiming(session: EditSession, timing: JoinTiming): void {
  session.change('Change join timing', once(), (draft) => {
    draft.highlight.joinTiming = timing
  })
}

export function insertBed(session: EditSession, bed: Bed): void {
  session.change('Add music', once(), (draft) => void draft.highlight.beds.push(bed))
}

export function changeBed(session: EditSession, id: BedId, part: Partial<Bed>, gesture: string): void {
  session.change('Change music', gesture, (draft) => {
    draft.highlight.beds = draft.highlight.beds.map((b) => (b.id === id ? { ...b, ...part } : b))
  })
}

export function removeBed(session: EditSession, id: BedId): void {
  session.change('Remove music', once(), (draft) => {
    draft.highlight.beds = draft.highlight.beds.filter((b) => b.id !== id)
  })
}
