import { expect, it, vi } from 'vitest'
import { keepDoing } from './oneTab'

/** One browser: who comes second to a lock waits for ever, as nobody here ever lets go. */
function browser(againAfterMs = 0) {
  const held = new Set<string>()
  const request = (async (name: string, work: () => Promise<unknown>) => {
    if (held.has(name)) return
    held.add(name)
    await work()
  }) as LockManager['request']
  const failures: unknown[] = []
  return { locks: { request }, againAfterMs, onFailure: (error: unknown) => void failures.push(error), failures }
}

const forever = () => new Promise<void>(() => {})

it('rounds follow one another, begun once', async () => {
  const done: string[] = []
  keepDoing(
    {
      lock: 'one',
      begin: async () => void done.push('begin'),
      round: async () => (done.push('round') < 4 ? undefined : forever()),
    },
    browser(),
  )
  await vi.waitFor(() => expect(done).toEqual(['begin', 'round', 'round', 'round']))
})

it('a round that fails is told of, and tried again from the beginning', async () => {
  const around = browser()
  const done: string[] = []
  const full = new DOMException('the disk is full', 'QuotaExceededError')
  const round = async () => {
    done.push('round')
    if (done.length < 5) throw full
    await forever()
  }
  keepDoing({ lock: 'two', begin: async () => void done.push('begin'), round }, around)
  await vi.waitFor(() => expect(done).toEqual(['begin', 'round', 'begin', 'round', 'begin', 'round']))
  expect(around.failures).toEqual([full, full])
})

it('what cannot begin is begun again, and no round is done before it could', async () => {
  const done: string[] = []
  const begin = async () => {
    done.push('begin')
    if (done.length < 3) throw new Error('the database is held by a newer version')
  }
  keepDoing({ lock: 'three', begin, round: async () => (done.push('round'), forever()) }, browser())
  await vi.waitFor(() => expect(done).toEqual(['begin', 'begin', 'begin', 'round']))
})

it('between two tries some time goes by', async () => {
  let tries = 0
  const round = () => {
    tries++
    return Promise.reject(new Error('no'))
  }
  keepDoing({ lock: 'four', round }, browser(60_000))
  await vi.waitFor(() => expect(tries).toBe(1))
  // Whatever waits for nothing is done by then.
  await new Promise((resolve) => setTimeout(resolve))
  expect(tries).toBe(1)
})

it('is done once in a tab, and in one tab at a time', async () => {
  const done: string[] = []
  const around = browser()
  const chore = (tab: string) => ({ lock: 'five', round: async () => (done.push(tab), forever()) })
  keepDoing(chore('here'), around)
  keepDoing(chore('here again'), around)
  await around.locks.request('five', async () => void done.push('another tab'))
  await vi.waitFor(() => expect(done).toEqual(['here']))
})
