import { expect, it } from 'vitest'
import type { CueId, RecordingId } from '../model/ids'
import type { Cue } from '../model/words'
import { doubtfulPlaces } from './doubtful'
import { isLight } from './contrast'

let n = 0
const cue = (text: string, seconds = 4): Cue => ({
  id: `c${++n}` as CueId,
  recordingId: 'r' as RecordingId,
  fromMicros: n * 10_000_000,
  toMicros: n * 10_000_000 + seconds * 1_000_000,
  text,
  words: [],
  speakerId: null,
})
const doubts = (...texts: string[]) =>
  doubtfulPlaces(texts.map((t) => cue(t))).map(({ cue: { text }, doubt }) =>
    'token' in doubt ? `${doubt.why}: ${text.slice(doubt.token.from, doubt.token.to)}` : doubt.why,
  )

it('a word twice in a row is doubtful, one that is repeated on purpose is not', () => {
  expect(doubts('we are are over the ridge')).toEqual(['twice: are'])
  expect(doubts('Go, go, go! Clean turn!')).toEqual([])
})

it('a word one letter off a word that is said often is doubtful; grammar is not', () => {
  const often = ['the thermal leans', 'a thermal starts', 'that thermal again']
  expect(doubts(...often, 'the thremal', 'this thernal')).toEqual(['alike: thernal'])
  expect(doubts(...often, 'two thermals')).toEqual([])
})

it('what an encoding gone wrong leaves, letters and figures run together, empty lines and lines too fast to read are told', () => {
  expect(doubts('the cafÃ© by the hangar', 'gate5was clean', 'nooooo')).toEqual([
    'garbled: cafÃ©',
    'garbled: gate5was',
    'garbled: nooooo',
  ])
  expect(doubts('  ')).toEqual(['empty'])
  expect(doubtfulPlaces([cue('Thank you for flying with us, see you all on Friday', 1)])).toMatchObject([
    { doubt: { why: 'fast', perSecond: 51 } },
  ])
  expect(doubts('Three seconds up on the board.', 'And we are over the finish, unbelievable.')).toEqual([])
})

it('dark letters go on light colours', () => {
  expect(['#ffffff', '#F2C94C', '#9FE0B4'].map(isLight)).toEqual([true, true, true])
  expect(['#000000', '#2E5E3E', '#B3402C'].map(isLight)).toEqual([false, false, false])
})
