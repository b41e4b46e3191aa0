import { beforeEach, describe, expect, it } from 'vitest'
import type { EditSession } from '@/store/highlights'
import {
  addCue,
  addSpeaker,
  addTitle,
  editSpeaker,
  editTitle,
  joinBefore,
  moveCueEdge,
  removeCue,
  removeSpeaker,
  removeTitle,
  replaceAll,
  setCaptions,
  setCues,
  setCueText,
  setSpeaker,
  setSpeakersByName,
  splitCaption,
  takeOutFillers,
  type LooseCue,
} from './words'
import { sampleEdit } from '../../tests/support/edits'
import { newId, type CueId, type SpeakerId, type TitleId } from '@/core/model/ids'
import { highlight } from '@/core/model/highlight'
import { fillersIn } from '@/core/words/fillers'
import { CAPTION_STYLES } from '@/core/words/textStyles'
import { Session } from '@/store/session'

let session: EditSession
beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written'))
})

const words = () => session.value.highlight.words
const texts = () => words().cues.map((c) => c.text)
const recordingId = sampleEdit().recordings[0]?.id
if (!recordingId) throw new Error('no recording')
const loose = (text: string, from: number, to: number, voice: string | null = null): LooseCue => ({
  text,
  fromMicros: from * 1e6,
  toMicros: to * 1e6,
  words: [],
  voice,
})

describe('words of a highlight', () => {
  beforeEach(() =>
    setCues(session, {
      recordingId,
      loose: [
        loose('Stay low, stay low.', 13, 15, 'Wren'),
        loose('Clean turn!', 16, 17, 'Wren'),
        loose('Where?', 18, 19, 'Odo'),
      ],
      label: 'Read captions',
    }),
  )

  it('take the place of what a recording had; each speaker is known once; one step of undo', () => {
    expect(words().speakers.map((s) => s.name)).toEqual(['Wren', 'Odo'])
    setCues(session, { recordingId, loose: [loose('Only this', 13, 14, 'Odo')], label: 'Read captions' })
    expect(texts()).toEqual(['Only this'])
    expect(words().speakers).toHaveLength(2)
    session.undo()
    expect(texts()).toEqual(['Stay low, stay low.', 'Clean turn!', 'Where?'])
  })

  it('typed at one go are one step of undo', () => {
    const [first] = words().cues
    for (const text of ['S', 'So', 'So low']) setCueText(session, { id: first?.id as CueId, text }, 'one visit')
    expect(texts()[0]).toBe('So low')
    session.undo()
    expect(texts()[0]).toBe('Stay low, stay low.')
  })

  it('are split, joined, moved and removed, and every state is one that can be stored', () => {
    const [first, second] = words().cues
    const made = newId<CueId>()
    expect(splitCaption(session, { id: first?.id as CueId, at: 10, newId: made })).toBe(true)
    expect(texts()).toEqual(['Stay low,', 'stay low.', 'Clean turn!', 'Where?'])
    joinBefore(session, { id: made })
    expect(texts()[0]).toBe('Stay low, stay low.')
    expect(splitCaption(session, { id: first?.id as CueId, at: 0, newId: made })).toBe(false)
    expect(session.store.getState().refusal).toEqual({ label: 'Split a caption', why: 'there is nothing to split off' })
    moveCueEdge(session, { id: second?.id as CueId, which: 'from', t: 15.5e6 }, 'drag')
    expect(words().cues[1]?.fromMicros).toBe(15.5e6)
    removeCue(session, { id: second?.id as CueId })
    expect(texts()).toEqual(['Stay low, stay low.', 'Where?'])
    expect(highlight.safeParse(session.value.highlight).success).toBe(true)
  })

  it('get an empty line where nothing is said yet, and none where something is', () => {
    const start = session.value.highlight.passages[0]?.inMicros ?? 0
    const there = addCue(session, 14e6 - start)
    expect(there).toBe(words().cues[0]?.id)
    expect(texts()).toHaveLength(3)
    const made = addCue(session, 15.2e6 - start)
    expect(
      words()
        .cues.map((c) => c.id)
        .indexOf(made as CueId),
    ).toBe(1)
    expect(words().cues[1]).toMatchObject({ text: '', fromMicros: 15.2e6, toMicros: 16e6 })
  })

  it('are replaced everywhere in one step', () => {
    const places = words().cues.flatMap((c) =>
      [...c.text.matchAll(/low/g)].map((m) => ({ cueId: c.id, from: m.index, to: m.index + 3 })),
    )
    replaceAll(session, { found: places, replacement: 'high up' })
    expect(texts()[0]).toBe('Stay high up, stay high up.')
    session.undo()
    expect(texts()[0]).toBe('Stay low, stay low.')
  })

  it('wear a style, are shown or not, and have a title above them', () => {
    const style = CAPTION_STYLES[3]?.style
    if (!style) throw new Error('no style')
    setCaptions(session, { label: 'Caption style', change: { style } })
    setCaptions(session, { label: 'Hide captions', change: { shown: false } })
    expect(words().captions).toMatchObject({ shown: false, style })
    const id = newId<TitleId>()
    addTitle(session, { id, text: 'Last gate' })
    editTitle(session, { id, label: 'Write the title', change: { text: 'Last gate, no lift' } })
    expect(words().titles).toMatchObject([{ id, text: 'Last gate, no lift', fromMicros: null, toMicros: null }])
    removeTitle(session, { id })
    expect(words().titles).toEqual([])
    session.undo()
    expect(words().titles).toHaveLength(1)
  })
})

describe('speakers', () => {
  beforeEach(() =>
    setCues(session, {
      recordingId,
      loose: [loose('Stay low.', 13, 15, 'Wren'), loose('Clean turn!', 16, 17)],
      label: 'Read captions',
    }),
  )

  it('are added with a name and colour that nobody has, changed, given lines, and taken away without their lines', () => {
    const added = newId<SpeakerId>()
    addSpeaker(session, { id: added })
    expect(words().speakers.map((s) => s.name)).toEqual(['Wren', 'Speaker 2'])
    expect(new Set(words().speakers.map((s) => s.colour)).size).toBe(2)
    const second = words().cues[1]?.id as CueId
    setSpeaker(session, { id: second, speakerId: added })
    editSpeaker(session, { id: added as never, change: { name: 'Odo', colour: '#9FE0B4' } })
    editSpeaker(session, { id: added as never, change: { name: '  ' } })
    expect(words().speakers[1]).toMatchObject({ name: 'Odo', colour: '#9FE0B4' })
    expect(highlight.safeParse(session.value.highlight).success).toBe(true)
    removeSpeaker(session, { id: added as never })
    expect(words().cues[1]).toMatchObject({ text: 'Clean turn!', speakerId: null })
    session.undo()
    expect(words().cues[1]?.speakerId).toBe(added)
  })

  it('are given lines by name at once; one that is not known yet is added', () => {
    const [first, second] = words().cues
    setSpeakersByName(session, {
      names: new Map([
        [first?.id as CueId, 'Odo'],
        [second?.id as CueId, 'Wren'],
      ]),
    })
    expect(words().speakers.map((s) => s.name)).toEqual(['Wren', 'Odo'])
    expect(words().cues.map((c) => words().speakers.find((s) => s.id === c.speakerId)?.name)).toEqual(['Odo', 'Wren'])
    session.undo()
    expect(words().cues[1]?.speakerId).toBeNull()
  })
})

it('fillers go out of the captions, and out of picture and sound where it is known when they are said', () => {
  const from = (session.value.highlight.passages[0]?.inMicros ?? 0) / 1e6
  const timed = 'We um turn'.split(' ').map((text, i) => ({
    text,
    fromMicros: (from + i) * 1e6,
    toMicros: (from + i + 1) * 1e6,
  }))
  const spoken = { ...loose('We um turn', from, from + 3), words: timed }
  setCues(session, { recordingId, loose: [spoken, loose('And uh glide', from + 4, from + 6)], label: 'Read captions' })
  const before = session.value
  takeOutFillers(session, { fillers: fillersIn(words().cues), alsoHeard: true })
  expect(texts()).toEqual(['We turn', 'And glide'])
  expect(words().cues[0]?.words.map((w) => w.text)).toEqual(['We', 'turn'])
  expect(session.value.highlight.passages[0]?.strikes).toEqual([
    { fromMicros: (from + 1) * 1e6, toMicros: (from + 2) * 1e6 },
  ])
  session.undo()
  expect(session.value).toEqual(before)
})
