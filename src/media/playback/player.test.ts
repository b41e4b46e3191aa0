import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { PassageId } from '@/core/model/ids'
import { sampleEdit } from '../../../tests/support/edits'
import { Player } from './player'

/** What the preview worker and the sound were asked for, in order. */
const asked: unknown[][] = []

vi.mock('../workers/startWorker', () => ({
  startWorker: () => ({
    remote: new Proxy(
      {},
      {
        get: (_, name) =>
          name === 'then'
            ? undefined
            : async (...args: unknown[]) => {
                asked.push([name, ...args])
                return { ok: true }
              },
      },
    ),
    end: () => asked.push(['end']),
  }),
}))

vi.mock('./soundOut', () => ({
  SoundOut: class {
    start = async () => performance.timeOrigin + performance.now()
    stop = () => asked.push(['silence'])
    setFiles = () => {}
    setEdit = () => {}
    setVolume = (volume: number) => asked.push(['volume', volume])
    scrub = (t: number) => asked.push(['heard', t])
    scrubPassage = (...args: unknown[]) => asked.push(['heard of a passage', ...args])
    close = async () => {}
  },
}))

const SECOND = 1_000_000
const named = (name: string) => asked.filter(([n]) => n === name)

/** A player with the sample edit open: two seconds are enough to play past its end. */
async function opened(): Promise<Player> {
  const player = new Player()
  const edit = sampleEdit()
  const [passage] = edit.highlight.passages
  if (!passage) throw new Error('no passage')
  const passages = [{ ...passage, outMicros: passage.inMicros + 2 * SECOND }]
  await player.open({ ...edit, highlight: { ...edit.highlight, passages } }, new Map())
  return player
}

beforeEach(() => {
  asked.length = 0
  vi.useFakeTimers()
})
afterEach(() => void vi.useRealTimers())

describe('a player', () => {
  it('moves with the clock and tells of it, comes round at the end, and stops there when it is not to', async () => {
    const player = await opened()
    const told: number[] = []
    player.onPosition((t) => told.push(t))
    await player.play()
    await vi.advanceTimersByTimeAsync(1500)
    expect(player.positionMicros).toBe(1.5 * SECOND)
    expect(told.length).toBeGreaterThan(10)
    expect([...told].sort((a, b) => a - b)).toEqual(told)
    await vi.advanceTimersByTimeAsync(1000)
    expect(player.getState().kind).toBe('playing')
    expect(player.positionMicros).toBeCloseTo(0.5 * SECOND, -4)
    player.setLoop(false)
    await vi.advanceTimersByTimeAsync(2000)
    expect(player.getState().kind).toBe('paused')
    expect(player.positionMicros).toBe(2 * SECOND)
    // From the end it begins anew.
    await player.play()
    expect(player.positionMicros).toBe(0)
  })

  it('plays a range over and over, and goes to its beginning when it stands before it', async () => {
    const player = await opened()
    player.setRange({ fromMicros: SECOND, toMicros: 1.5 * SECOND })
    await player.play()
    expect(player.positionMicros).toBe(SECOND)
    await vi.advanceTimersByTimeAsync(700)
    expect(player.positionMicros).toBeGreaterThanOrEqual(SECOND)
    expect(player.positionMicros).toBeLessThan(1.5 * SECOND)
  })

  it('goes twice as fast each time it is asked on in a direction, eight times at most, and backwards to the start', async () => {
    const player = await opened()
    const rates = [1, 1, 1, 1, 1].map((direction) => {
      player.shuttle(direction as 1)
      return player.getState().rate
    })
    expect(rates).toEqual([1, 2, 4, 8, 8])
    player.seek(SECOND)
    player.shuttle(-1)
    expect(player.getState().rate).toBe(-1)
    await vi.advanceTimersByTimeAsync(1200)
    expect(player.getState()).toMatchObject({ kind: 'paused', rate: 1 })
    expect(player.positionMicros).toBe(0)
  })

  it('goes to places inside the highlight alone, asks for their picture, and is heard there only by the hand', async () => {
    const player = await opened()
    player.seek(-5)
    player.seek(9 * SECOND)
    expect(player.positionMicros).toBe(2 * SECOND)
    expect(named('show').map(([, t]) => t)).toEqual([0, 2 * SECOND])
    expect(named('heard')).toEqual([])
    player.scrub(SECOND)
    expect(named('heard')).toEqual([['heard', SECOND]])
    player.peek('p' as PassageId, 7)
    expect(named('peek')).toEqual([['peek', 'p', 7]])
    expect(player.positionMicros).toBe(SECOND)
  })

  it('stays inside a highlight that has become shorter', async () => {
    const player = await opened()
    player.seek(2 * SECOND)
    const edit = sampleEdit()
    const passages = edit.highlight.passages.map((p) => ({ ...p, outMicros: p.inMicros + SECOND }))
    player.setEdit({ ...edit, highlight: { ...edit.highlight, passages } })
    expect(player.positionMicros).toBe(SECOND)
  })

  it('asks for nothing any more once it is closed', async () => {
    const player = await opened()
    await player.play()
    player.close()
    asked.length = 0
    player.setEdit(sampleEdit())
    player.resize('tall', 10, 10)
    player.detach('tall')
    player.setSpeech(new Map())
    await vi.advanceTimersByTimeAsync(3000)
    expect(asked).toEqual([])
  })
})
