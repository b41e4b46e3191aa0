import { describe, expect, it } from 'vitest'
import type { CueId, RecordingId } from '../model/ids'
import type { Cue } from '../model/words'
import { fillersIn, withoutFillers } from './fillers'

/** A caption whose words each take half a second. */
function said(text: string, isTimed = true): Cue {
  const words = text.split(' ').map((word, i) => ({
    text: word,
    fromMicros: i * 500_000,
    toMicros: (i + 1) * 500_000,
  }))
  const toMicros = words.length * 500_000
  return {
    id: text as CueId,
    recordingId: 'r' as RecordingId,
    fromMicros: 0,
    toMicros,
    text,
    words: isTimed ? words : [],
    speakerId: null,
  }
}

const without = (text: string) => withoutFillers([said(text)], fillersIn([said(text)])).map((c) => c.text)

describe('fillers', () => {
  it('are sounds, words broken off and words begun again', () => {
    expect(without('Um, we turn at the, uh, gate')).toEqual(['We turn at the, gate'])
    expect(without('The gli– glider is low')).toEqual(['The glider is low'])
    expect(without('We will we will turn back')).toEqual(['We will turn back'])
    expect(without('I I I think so')).toEqual(['I think so'])
  })

  it('are not what is said twice on purpose, answers, or other words', () => {
    for (const text of ['It is very very low', 'Mhm.', 'We won. We won.', 'No no, wait', 'A well-known umbrella'])
      expect(without(text)).toEqual([text])
  })

  it('take their words’ times with them, and leave the others theirs', () => {
    const cue = said('So um it turns')
    expect(fillersIn([cue])).toEqual([
      { cueId: cue.id, from: 3, to: 5, heard: { fromMicros: 500_000, toMicros: 1_000_000 } },
    ])
    expect(withoutFillers([cue], fillersIn([cue]))[0]?.words).toEqual([cue.words[0], cue.words[2], cue.words[3]])
    expect(fillersIn([said('So um it turns', false)])[0]?.heard).toBeNull()
  })

  it('leave no empty caption', () => {
    const cue = said('Um uh')
    expect(withoutFillers([cue], fillersIn([cue]))).toEqual([])
  })
})
