import { describe, expect, it } from 'vitest'
import { claim, claimWhile, Turns, untilCalm } from './turns'

const took = async (work: () => Promise<void>) => {
  const from = performance.now()
  await work()
  return performance.now() - from
}

describe('turns', () => {
  it('come at once where nothing is more urgent', async () => {
    claim('analysis', 60_000)
    await new Turns('looks').next()
    await new Turns('hand').next()
  })

  it('wait for what is more urgent and over soon', async () => {
    claim('hand', 250)
    expect(await took(() => new Turns('looks').next())).toBeGreaterThan(200)
  })

  it('wait for work that is claimed until it is done', async () => {
    const order: string[] = []
    let finish = () => {}
    const urgent = claimWhile('rest', () => new Promise<void>((resolve) => (finish = resolve)))
    const turn = new Turns('findings').next().then(() => order.push('turn'))
    await new Promise((resolve) => setTimeout(resolve))
    order.push('urgent is done')
    finish()
    await Promise.all([urgent, turn])
    expect(order).toEqual(['urgent is done', 'turn'])
  })

  it('are told of between threads and tabs', async () => {
    const other = new BroadcastChannel('brimble-ranks')
    const heard = new Promise((resolve) => (other.onmessage = ({ data }) => resolve(data)))
    claim('render', 500)
    expect(await heard).toMatchObject({ rank: 'render' })
    other.close()
  })

  it('that take long to begin wait until it is calm', async () => {
    const { signal } = new AbortController()
    await untilCalm('hand', signal)
    claim('findings', 10)
    expect(await took(() => untilCalm('looks', signal))).toBeGreaterThan(2500)
  })

  it('are not waited for once nobody wants them', async () => {
    claim('hand', 60_000)
    const abort = new AbortController()
    const waiting = new Turns('looks').next(abort.signal)
    abort.abort()
    await expect(waiting).rejects.toThrow('abort')
  })
})
