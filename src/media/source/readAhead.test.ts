import { describe, expect, it } from 'vitest'
import { ReadAhead } from './readAhead'

/** A source that makes numbers as fast as it may, and a taker; what was made and what was taken. */
function line(most: number, count: number) {
  const ahead = new ReadAhead(most)
  const made: number[] = []
  const taken: number[] = []
  let wake = () => {}
  const source = (async () => {
    for (let n = 0; n < count; n++) {
      await ahead.turn()
      made.push(n)
      wake()
    }
  })()
  const take = () =>
    ahead.take(async () => {
      while (made.length <= taken.length) await new Promise<void>((resolve) => (wake = resolve))
      taken.push(made[taken.length] as number)
      return taken.at(-1)
    })
  return { ahead, made, taken, source, take }
}

const idle = () => new Promise((resolve) => setTimeout(resolve, 30))

describe('reading ahead', () => {
  it('holds the source back to so many things, and lets it go on as they are taken', async () => {
    const { made, take } = line(3, 100)
    await idle()
    expect(made).toHaveLength(3)
    await take()
    await take()
    await idle()
    expect(made).toHaveLength(5)
  })

  it('gives everything, in order, to a taker who goes on', async () => {
    const { taken, take, source } = line(2, 40)
    for (let n = 0; n < 40; n++) await take()
    await source
    expect(taken).toEqual(Array.from({ length: 40 }, (_, n) => n))
  })

  it('lets the source go beyond the limit for somebody who waits and gets nothing', async () => {
    const ahead = new ReadAhead(1)
    let given = 0
    const source = (async () => {
      for (; given < 4; given++) await ahead.turn()
    })()
    // A decoder that gives nothing back before it has four things.
    const got = ahead.take(async () => {
      while (given < 4) await idle()
      return 'at last'
    })
    expect(await got).toBe('at last')
    await source
  })

  it('holds nothing back any more once it is closed', async () => {
    const { ahead, made, source } = line(1, 20)
    await idle()
    expect(made).toHaveLength(1)
    ahead.close()
    await source
    expect(made).toHaveLength(20)
  })
})
