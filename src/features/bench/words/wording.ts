import type { Draft } from 'immer'
import type { CueId, RecordingId, SpeakerId, TitleId } from '@/core/model/ids'
import type { TextStyle } from '@/core/model/textStyle'
import { freeName } from '@/core/interchange/freeName'
import { MOST_SPEAKERS, type Captions, type Cue, type Speaker, type TitleCard, type Words } from '@/core/model/words'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, toRecordingMicros } from '@/core/time/timeMap'
import { blankCueAt, inOrder, joinToPrevious, moveEdge, replaceText, splitCue, type Found } from '@/core/words/cueEdits'
import { TITLE_STYLES } from '@/core/words/textStyles'
import { newId } from '@/store/clock'
import type { EditSession } from '../edits'

/** What can be done to words: captions in recording time, titles in output time. Changes with the same `gesture` are undone together. */

const once = () => crypto.randomUUID()

/** Colours in which speakers are told apart, in the order in which they come: the first speaks in the style's own; all can be read with a dark ring or shadow. */
const SPEAKER_COLOURS = [null, '#F2C94C', '#9FE0B4', '#F2A58E', '#A9C8F0', '#D9B8F0'] as const

function editCues(session: EditSession, label: string, gesture: string, change: (cues: readonly Cue[]) => Cue[]): void {
  session.change(label, gesture, (draft) => {
    draft.highlight.words.cues = change(draft.highlight.words.cues)
  })
}

export function setCueText(session: EditSession, id: CueId, text: string, gesture: string): void {
  session.change('Write captions', gesture, (draft) => {
    const cue = draft.highlight.words.cues.find((c) => c.id === id)
    if (cue) cue.text = text
  })
}

/** Splits a cue at a character. Gives the new cue; null when there was nothing to split off. */
export function splitAt(session: EditSession, id: CueId, at: number): CueId | null {
  const made = newId<CueId>()
  const before = session.value.highlight.words.cues.length
  editCues(session, 'Split a caption', once(), (cues) => splitCue(cues, id, at, made))
  return session.value.highlight.words.cues.length > before ? made : null
}

/** Joins a cue to the one before. Gives that one and where in its text they meet. */
export function joinBefore(session: EditSession, id: CueId): { id: CueId; at: number } | null {
  const joined = joinToPrevious(session.value.highlight.words.cues, id)
  if (!joined) return null
  editCues(session, 'Join captions', once(), () => joined.cues)
  return joined
}

export function removeCue(session: EditSession, id: CueId): void {
  editCues(session, 'Remove a caption', once(), (cues) => cues.filter((c) => c.id !== id))
}

export function moveCueEdge(session: EditSession, id: CueId, which: 'from' | 'to', t: Micros, gesture: string): void {
  editCues(session, which === 'from' ? 'Move a caption’s start' : 'Move a caption’s end', gesture, (cues) => moveEdge(cues, id, which, t))
}

/** An empty caption at output time `t`; the one that is there already, if so. */
export function addCueAt(session: EditSession, t: Micros): CueId | null {
  const { highlight } = session.value
  const at = toRecordingMicros(timeMapOf(highlight), t)
  if (!at) return null
  const { recordingId } = at.passage
  const made = blankCueAt(highlight.words.cues, recordingId, at.recordingMicros, newId<CueId>())
  if (!made) return highlight.words.cues.find((c) => c.recordingId === recordingId && c.fromMicros <= at.recordingMicros && at.recordingMicros < c.toMicros)?.id ?? null
  editCues(session, 'Add a caption', once(), (cues) => inOrder([...cues, made]))
  return made.id
}

/** A cue as it was read or found, before it belongs to anything. */
export type LooseCue = Pick<Cue, 'fromMicros' | 'toMicros' | 'text' | 'words'> & { voice: string | null }

/** Puts cues in the place of those that a recording has. Speakers that are new are added by name. */
export function setCues(session: EditSession, recordingId: RecordingId, loose: readonly LooseCue[], label: string): void {
  session.change(label, once(), (draft) => {
    const { words } = draft.highlight
    const made = loose.map(({ voice, ...cue }): Cue => ({ ...cue, id: newId<CueId>(), recordingId, speakerId: voice ? speakerNamed(words, voice) : null }))
    words.cues = inOrder([...words.cues.filter((c) => c.recordingId !== recordingId), ...made])
  })
}

/** The speaker of a name; one that is new is added. Null where there is no room for more. */
function speakerNamed({ speakers }: Draft<Words>, name: string): SpeakerId | null {
  const known = speakers.find((s) => s.name === name)
  if (known) return known.id
  if (speakers.length >= MOST_SPEAKERS) return null
  const id = newId<SpeakerId>()
  speakers.push({ id, name, colour: SPEAKER_COLOURS[speakers.length] ?? null })
  return id
}

/** Says who speaks in many cues at once, by name. */
export function setSpeakersByName(session: EditSession, names: ReadonlyMap<CueId, string>): void {
  session.change('Set who speaks', once(), ({ highlight: { words } }) => {
    for (const cue of words.cues) {
      const name = names.get(cue.id)
      if (name !== undefined) cue.speakerId = speakerNamed(words, name)
    }
  })
}

export function replaceAll(session: EditSession, found: readonly Found[], replacement: string): void {
  editCues(session, 'Replace in captions', once(), (cues) => replaceText(cues, found, replacement))
}

export function setCaptions(session: EditSession, label: string, change: Partial<Captions>, gesture: string = once()): void {
  session.change(label, gesture, (draft) => {
    Object.assign(draft.highlight.words.captions, change)
  })
}

export function addTitle(session: EditSession, text: string, style: TextStyle = (TITLE_STYLES[0] as (typeof TITLE_STYLES)[number]).style): TitleId {
  const id = newId<TitleId>()
  session.change('Add a title', once(), (draft) => {
    draft.highlight.words.titles.push({ id, text, fromMicros: null, toMicros: null, style })
  })
  return id
}

export function editTitle(session: EditSession, id: TitleId, label: string, change: Partial<Omit<TitleCard, 'id'>>, gesture: string = once()): void {
  session.change(label, gesture, (draft) => {
    const title = draft.highlight.words.titles.find((t) => t.id === id)
    if (title) Object.assign(title, change)
  })
}

export function removeTitle(session: EditSession, id: TitleId): void {
  session.change('Remove a title', once(), (draft) => {
    draft.highlight.words.titles = draft.highlight.words.titles.filter((t) => t.id !== id)
  })
}

/** Somebody new who speaks, with a name and a colour that nobody has. */
export function addSpeaker(session: EditSession): SpeakerId | null {
  const { speakers } = session.value.highlight.words
  if (speakers.length >= MOST_SPEAKERS) return null
  const id = newId<SpeakerId>()
  const colour = SPEAKER_COLOURS[speakers.length] ?? null
  session.change('Add a speaker', once(), (draft) => void draft.highlight.words.speakers.push({ id, name: freeName(`Speaker ${speakers.length + 1}`, speakers.map((s) => s.name)), colour }))
  return id
}

export function editSpeaker(session: EditSession, id: SpeakerId, change: Partial<Omit<Speaker, 'id'>>, gesture: string = once()): void {
  if (change.name !== undefined && change.name.trim() === '') return
  session.change('Change a speaker', gesture, (draft) => {
    const speaker = draft.highlight.words.speakers.find((s) => s.id === id)
    if (speaker) Object.assign(speaker, change)
  })
}

/** Takes a speaker away; what they said stays, as nobody's. */
export function removeSpeaker(session: EditSession, id: SpeakerId): void {
  session.change('Remove a speaker', once(), ({ highlight: { words } }) => {
    words.speakers = words.speakers.filter((s) => s.id !== id)
    for (const cue of words.cues) if (cue.speakerId === id) cue.speakerId = null
  })
}

/** Says who speaks in a cue; null for nobody in particular. */
export function setSpeaker(session: EditSession, id: CueId, speakerId: SpeakerId | null): void {
  session.change('Set who speaks', once(), (draft) => {
    const cue = draft.highlight.words.cues.find((c) => c.id === id)
    if (cue) cue.speakerId = speakerId
  })
}
