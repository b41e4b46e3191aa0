import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { Passage } from '../model/passage'
import { PIECE_MICROS, piecesOf } from './pieces'
import { timeMapOf } from './timeMap'

const S = 1_000_000

function pieces(passages: Partial<Passage>[], here = 0, isWanted = () => true): number[] {
  const edit = sampleEdit()
  const [first] = edit.highlight.passages
  if (!first) throw new Error('a sample has a passage')
  const highlight = {
    ...edit.highlight,
    passages: passages.map((p, i) => ({ ...first, ...p, id: `p${i}` }) as Passage),
  }
  return piecesOf(edit, timeMapOf(highlight), here, isWanted).map((p) => p.index)
}

describe('pieces of recordings', () => {
  it('are those that play, with some seconds beside, none beyond the recording', () => {
    expect(PIECE_MICROS).toBe(8 * S)
    expect(pieces([{ inMicros: 12 * S, outMicros: 22 * S }])).toEqual([1, 2, 3])
    expect(pieces([{ inMicros: 1 * S, outMicros: 2 * S }])).toEqual([0])
    expect(pieces([{ inMicros: 50 * S, outMicros: 60 * S }])).toEqual([5, 6, 7])
  })

  it('begin where somebody is, and come to what lies before after all that lies ahead', () => {
    const two = [
      { inMicros: 28 * S, outMicros: 36 * S },
      { inMicros: 4 * S, outMicros: 12 * S },
    ]
    expect(pieces(two)).toEqual([3, 4, 0, 1])
    expect(pieces(two, 9 * S)).toEqual([0, 1, 4, 3])
  })

  it('leave out what is struck, and recordings that need none', () => {
    const strikes = [{ fromMicros: 12 * S, toMicros: 44 * S }]
    expect(pieces([{ inMicros: 2 * S, outMicros: 54 * S, strikes }])).toEqual([0, 1, 5, 6, 7])
    expect(pieces([{}], 0, () => false)).toEqual([])
  })

  it('come in the order of the output, whatever the speed', () => {
    const fast = { inMicros: 0, outMicros: 40 * S, speedPercent: 400 }
    expect(pieces([fast], 5 * S)).toEqual([2, 3, 4, 5, 1, 0])
  })

  it('are also of recordings that panels play', () => {
    const feed = (plays: unknown) => ({ inMicros: 2 * S, outMicros: 4 * S, feeds: [{ panelId: 'a', plays }] }) as never
    const recordingId = 'r'
    const own = { kind: 'own', inMicros: 30 * S, speedPercent: 400 }
    expect(pieces([feed({ kind: 'recording', recordingId, setupId: 's', clock: own })])).toEqual([0, 3, 4, 5])
    const together = { kind: 'together', offsetMicros: 20 * S }
    expect(pieces([feed({ kind: 'recording', recordingId, setupId: 's', clock: together })])).toEqual([0, 2, 3])
    expect(pieces([feed({ kind: 'passage', passageId: 'p0' })])).toEqual([0])
  })

  it('follow a picture that runs by itself', () => {
    const picture = { inMicros: 40 * S, speedPercent: 100 }
    expect(pieces([{ inMicros: 2 * S, outMicros: 4 * S, picture }])).toEqual([4, 5])
  })
})
