import { beforeEach, expect, test } from 'vitest'
import { FAULTS, forgetPosts, setFault, STAND_IN_LIMITS, takenPosts, takePost, type Sent } from './outlet'

const atOnce = () => Promise.resolve()
const sent = (change: Partial<Sent> = {}): Sent => ({
  key: 'k',
  outlet: 'Story',
  title: 'Last gate',
  text: 'No lift',
  fileName: 'a.mp4',
  body: new Blob(['film']).stream(),
  ...change,
})

beforeEach(forgetPosts)

test('takes a file and lists it; the same key is the same post, also when both come at once', async () => {
  const [first, second] = await Promise.all([takePost(sent(), atOnce), takePost(sent(), atOnce)])
  expect([first.status, second.status].sort()).toEqual([200, 201])
  expect(first.body.id).toBe(second.body.id)
  expect(await takePost(sent(), atOnce)).toEqual({ status: 200, body: { id: first.body.id } })
  expect(takenPosts()).toMatchObject([{ outlet: 'Story', title: 'Last gate', sizeBytes: 4 }])
})

test('fails in the ways that real ones do, and keeps nothing then', async () => {
  const expected = { none: 201, busy: 503, 'too-large': 413, refused: 422, 'signed-out': 401 } as const
  for (const fault of FAULTS) {
    forgetPosts()
    setFault(fault)
    if (fault === 'offline') await expect(takePost(sent(), atOnce)).rejects.toThrow('offline')
    else expect((await takePost(sent(), atOnce)).status).toBe(expected[fault])
    expect(takenPosts()).toHaveLength(fault === 'none' ? 1 : 0)
  }
})

test('holds to its limits', async () => {
  expect((await takePost(sent({ title: 'x'.repeat(STAND_IN_LIMITS.title + 1) }), atOnce)).status).toBe(400)
  expect((await takePost(sent({ body: null }), atOnce)).status).toBe(400)
  const piece = new Uint8Array(1e7)
  let left = 26
  const huge = new ReadableStream<Uint8Array>({ pull: (c) => (left-- > 0 ? c.enqueue(piece) : c.close()) })
  expect((await takePost(sent({ body: huge }), atOnce)).status).toBe(413)
  expect(takenPosts()).toEqual([])
})
