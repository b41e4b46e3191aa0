import type { Draft } from 'immer'
import { freeName } from '@/core/interchange/freeName'
import type { Edit } from '@/core/model/edit'
import { newId, type CueId, type RecordingId, type SpeakerId, type TitleId } from '@/core/model/ids'
import type { Highlight } from '@/core/model/highlight'
import type { TextStyle } from '@/core/model/textStyle'
import { MAX_SPEAKERS, type Captions, type Cue, type Speaker, type TitleCard, type Words } from '@/core/model/words'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, toRecordingMicros } from '@/core/time/timeMap'
import {
  blankCueAt,
  inOrder,
  joinToPrevious,
  moveEdge,
  replaceText,
  splitCue,
  type TextMatch,
} from '@/core/words/cueEdits'
import { withoutFillers, type Filler } from '@/core/words/fillers'
import { TITLE_STYLES } from '@/core/words/textStyles'
import { command, type Host } from './command'
import { strikeAll } from './passages'

/** Words: captions in recording time, titles in output time, and who speaks. */

/**
 * Colours in which speakers are told apart, in the order in which they come: the first speaks in the style's own; all
 * can be read with a dark ring or shadow.
 */
const SPEAKER_COLOURS = [null, '#F2C94C', '#9FE0B4', '#F2A58E', '#A9C8F0', '#D9B8F0'] as const

function changeCue(draft: Draft<Edit>, id: CueId, change: Partial<Cue>): void {
  const cue = draft.highlight.words.cues.find((c) => c.id === id)
  if (cue) Object.assign(cue, change)
}

export const setCueText = command<{ id: CueId; text: string }>({
  id: 'set-cue-text',
  label: 'Write captions',
  apply: (draft, { id, text }) => changeCue(draft, id, { text }),
})

/** Splits a cue at a character; the second part is called `newId`. */
export const splitCaption = command<{ id: CueId; at: number; newId: CueId }>({
  id: 'split-caption',
  label: 'Split a caption',
  refuse: ({ highlight: { words } }, { id, at, newId }) =>
    splitCue(words.cues, id, at, newId).length > words.cues.length ? null : 'there is nothing to split off',
  apply: ({ highlight: { words } }, { id, at, newId }) => {
    words.cues = splitCue(words.cues, id, at, newId)
  },
})

/** Joins a cue to the one before. */
export const joinBefore = command<{ id: CueId }>({
  id: 'join-before',
  label: 'Join captions',
  apply: ({ highlight: { words } }, { id }) => {
    words.cues = joinToPrevious(words.cues, id)?.cues ?? words.cues
  },
})

export const removeCue = command<{ id: CueId }>({
  id: 'remove-cue',
  label: 'Remove a caption',
  apply: ({ highlight: { words } }, { id }) => {
    words.cues = words.cues.filter((c) => c.id !== id)
  },
})

export const moveCueEdge = command<{ id: CueId; which: 'from' | 'to'; t: Micros }>({
  id: 'move-cue-edge',
  label: ({ which }) => (which === 'from' ? 'Move a caption’s start' : 'Move a caption’s end'),
  apply: ({ highlight: { words } }, { id, which, t }) => {
    words.cues = moveEdge(words.cues, id, which, t)
  },
})

/** Leaves a cue there until `toMicros` at least. */
export const lengthenCue = command<{ id: CueId; toMicros: Micros }>({
  id: 'lengthen-cue',
  label: 'Lengthen a caption',
  apply: (draft, { id, toMicros }) => {
    const cue = draft.highlight.words.cues.find((c) => c.id === id)
    if (cue) cue.toMicros = Math.max(cue.toMicros, toMicros)
  },
})

/** Where words stand at output time `t`: the cue that is there, and the place for one where there is none. */
export function cueAt(
  { highlight }: Edit,
  t: Micros,
): { there: Cue | null; recordingId: RecordingId; recordingMicros: Micros } | null {
  const at = toRecordingMicros(timeMapOf(highlight), t)
  if (!at) return null
  const { recordingId } = at.passage
  const there =
    highlight.words.cues.find(
      (c) => c.recordingId === recordingId && c.fromMicros <= at.recordingMicros && at.recordingMicros < c.toMicros,
    ) ?? null
  return { there, recordingId, recordingMicros: at.recordingMicros }
}

/**
 * An empty caption at output time `t`, unless there is one: its id, or that of the one which is there; null where
 * there can be none.
 */
export function addCue(host: Host, t: Micros): CueId | null {
  const there = cueAt(host.value, t)?.there
  if (there) return there.id
  const id = newId<CueId>()
  return addCueAt(host, { t, newId: id }) ? id : null
}

/** An empty caption at output time `t`, called `newId`. */
export const addCueAt = command<{ t: Micros; newId: CueId }>({
  id: 'add-cue',
  label: 'Add a caption',
  refuse: (edit, { t, newId }) => (blankIn(edit, t, newId) ? null : 'there is no room for a caption here'),
  apply: (draft, { t, newId }) => {
    const made = blankIn(draft, t, newId)
    if (made) draft.highlight.words.cues = inOrder([...draft.highlight.words.cues, made])
  },
})

function blankIn(edit: Edit, t: Micros, newId: CueId): Cue | null {
  const at = cueAt(edit, t)
  return at && blankCueAt(edit.highlight.words.cues, at.recordingId, at.recordingMicros, newId)
}

/** A cue as it was read or found, before it belongs to anything. */
export type LooseCue = Pick<Cue, 'fromMicros' | 'toMicros' | 'text' | 'words'> & { voice: string | null }

/** Puts cues in the place of those that a recording has. Speakers that are new are added by name. */
export const setCues = command<{ recordingId: RecordingId; loose: readonly LooseCue[]; label: string }>({
  id: 'set-cues',
  label: ({ label }) => label,
  apply: (draft, { recordingId, loose }) => {
    const { words } = draft.highlight
    const made = loose.map(({ voice, ...cue }): Cue => ({
      ...cue,
      id: newId<CueId>(),
      recordingId,
      speakerId: voice ? speakerNamed(words, voice) : null,
    }))
    words.cues = inOrder([...words.cues.filter((c) => c.recordingId !== recordingId), ...made])
  },
})

/** Gives captions the times that their words were heard at; the captions keep their order and text. */
export const timeCues = command<{ timed: readonly Pick<Cue, 'id' | 'fromMicros' | 'toMicros' | 'words'>[] }>({
  id: 'time-cues',
  label: 'Time words by sound',
  refuse: (_, { timed }) => (timed.length === 0 ? 'no word was heard' : null),
  apply: (draft, { timed }) => {
    for (const { id, ...times } of timed) changeCue(draft, id, times)
    draft.highlight.words.cues = inOrder(draft.highlight.words.cues)
  },
})

/** The speaker of a name; one that is new is added. Null where there is no room for more. */
function speakerNamed({ speakers }: Draft<Words>, name: string): SpeakerId | null {
  const there = speakers.find((s) => s.name === name)
  if (there) return there.id
  if (speakers.length >= MAX_SPEAKERS) return null
  const id = newId<SpeakerId>()
  speakers.push({ id, name, colour: SPEAKER_COLOURS[speakers.length] ?? null })
  return id
}

/** Says who speaks in many cues at once, by name. */
export const setSpeakersByName = command<{ names: ReadonlyMap<CueId, string> }>({
  id: 'set-speakers-by-name',
  label: 'Set who speaks',
  apply: ({ highlight: { words } }, { names }) => {
    for (const cue of words.cues) {
      const name = names.get(cue.id)
      if (name !== undefined) cue.speakerId = speakerNamed(words, name)
    }
  },
})

export const replaceAll = command<{ found: readonly TextMatch[]; replacement: string }>({
  id: 'replace-all',
  label: 'Replace in captions',
  apply: ({ highlight: { words } }, { found, replacement }) => {
    words.cues = replaceText(words.cues, found, replacement)
  },
})

/**
 * Takes fillers out of the captions; `alsoHeard`: out of picture and sound too, where it is known when they are said.
 */
export const takeOutFillers = command<{ fillers: readonly Filler[]; alsoHeard: boolean }>({
  id: 'take-out-fillers',
  label: 'Take out fillers',
  refuse: (_, { fillers }) => (fillers.length === 0 ? 'there are none' : null),
  apply: (draft, { fillers, alsoHeard }) => {
    const { highlight } = draft
    if (alsoHeard) strikeAll.apply(draft, { label: '', stretches: heardIn(highlight, fillers) })
    highlight.words.cues = withoutFillers(highlight.words.cues, fillers)
  },
})

/** Where passages play what is heard of fillers. */
function heardIn({ passages, words: { cues } }: Highlight, fillers: readonly Filler[]) {
  return fillers.flatMap(({ cueId, heard }) => {
    const cue = cues.find((c) => c.id === cueId)
    if (!heard || !cue) return []
    return passages
      .filter(
        (p) => p.recordingId === cue.recordingId && heard.fromMicros >= p.inMicros && heard.toMicros <= p.outMicros,
      )
      .map((p) => ({ passageId: p.id, strike: heard }))
  })
}

export const setCaptions = command<{ label: string; change: Partial<Captions> }>({
  id: 'set-captions',
  label: ({ label }) => label,
  apply: ({ highlight: { words } }, { change }) => void Object.assign(words.captions, change),
})

export const addTitle = command<{ id: TitleId; text: string; style?: TextStyle }>({
  id: 'add-title',
  label: 'Add a title',
  apply: ({ highlight: { words } }, { id, text, style = (TITLE_STYLES[0] as (typeof TITLE_STYLES)[number]).style }) =>
    void words.titles.push({ id, text, fromMicros: null, toMicros: null, style }),
})

export const editTitle = command<{ id: TitleId; label: string; change: Partial<Omit<TitleCard, 'id'>> }>({
  id: 'edit-title',
  label: ({ label }) => label,
  apply: ({ highlight: { words } }, { id, change }) => {
    const title = words.titles.find((t) => t.id === id)
    if (title) Object.assign(title, change)
  },
})

/** Changes parts of the style of a title, or (null) of the captions. */
export const changeStyle = command<{ titleId: TitleId | null; change: Partial<TextStyle> }>({
  id: 'change-style',
  label: 'Change style',
  apply: ({ highlight: { words } }, { titleId, change }) => {
    const written = titleId === null ? words.captions : words.titles.find((t) => t.id === titleId)
    if (written) Object.assign(written.style, change)
  },
})

export const removeTitle = command<{ id: TitleId }>({
  id: 'remove-title',
  label: 'Remove a title',
  apply: ({ highlight: { words } }, { id }) => {
    words.titles = words.titles.filter((t) => t.id !== id)
  },
})

/** Somebody new who speaks, with a name and a colour that nobody has. */
export const addSpeaker = command<{ id: SpeakerId }>({
  id: 'add-speaker',
  label: 'Add a speaker',
  refuse: ({ highlight: { words } }) =>
    words.speakers.length >= MAX_SPEAKERS ? `there are ${MAX_SPEAKERS} people who speak at most` : null,
  apply: ({ highlight: { words } }, { id }) => {
    const { speakers } = words
    const name = freeName(
      `Speaker ${speakers.length + 1}`,
      speakers.map((s) => s.name),
    )
    speakers.push({ id, name, colour: SPEAKER_COLOURS[speakers.length] ?? null })
  },
})

export const editSpeaker = command<{ id: SpeakerId; change: Partial<Omit<Speaker, 'id'>> }>({
  id: 'edit-speaker',
  label: 'Change a speaker',
  refuse: (_edit, { change }) => (change.name?.trim() === '' ? 'a speaker needs a name' : null),
  apply: ({ highlight: { words } }, { id, change }) => {
    const speaker = words.speakers.find((s) => s.id === id)
    if (speaker) Object.assign(speaker, change)
  },
})

/** Takes a speaker away; what they said stays, as nobody's. */
export const removeSpeaker = command<{ id: SpeakerId }>({
  id: 'remove-speaker',
  label: 'Remove a speaker',
  apply: ({ highlight: { words } }, { id }) => {
    words.speakers = words.speakers.filter((s) => s.id !== id)
    for (const cue of words.cues) if (cue.speakerId === id) cue.speakerId = null
  },
})

/** Says who speaks in a cue; null for nobody in particular. */
export const setSpeaker = command<{ id: CueId; speakerId: SpeakerId | null }>({
  id: 'set-speaker',
  label: 'Set who speaks',
  apply: (draft, { id, speakerId }) => changeCue(draft, id, { speakerId }),
})
