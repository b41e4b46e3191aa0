import { expect, test } from '@playwright/test'
import { spawn, spawnSync } from 'node:child_process'
import {
  copyFileSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:http'
import { basename, join } from 'node:path'
import { BlobReader, BlobWriter, TextReader, ZipWriter } from '@zip.js/zip.js'
import { choosePlainly, toBench } from '../support/brimble'
import { made } from '../support/makeRecordings'
import { runToEnd } from '../support/commands'
import { freePort, OwnRedis, start, tempDir } from '../support/processes.mjs'
import { ffprobe } from '../support/ffmpeg'
import { connect, openQueue, submit } from '../../unattended/queue.mjs'
import { sampleEdit } from '../support/edits'

const NODE = 'unattended/node.mjs'
const SUBMIT = 'unattended/submit.mjs'

/** An edit of the numbered recording, as a file of its own; `n` makes it another one. */
function editFile(folder: string, n: number, seconds: number): string {
  const edit = sampleEdit()
  const [recording] = edit.recordings
  const [passage] = edit.highlight.passages
  if (!recording || !passage) throw new Error('nothing to edit')
  const numbered = {
    ...recording,
    fileName: 'numbered.mp4',
    sizeBytes: readFileSync(made('numbered.mp4')).length,
    durationMicros: 14_000_000,
    video: { ...recording.video, width: 1280, height: 720, frameRate: { num: 30, den: 1 } },
  }
  const highlight = {
    ...edit.highlight,
    name: `Final glide ${n}`,
    shapes: [{ id: 'small', width: 270, height: 480 }],
    passages: [{ ...passage, inMicros: n * 100_000, outMicros: n * 100_000 + seconds * 1_000_000 }],
  }
  const path = join(folder, `glide-${n}.brimble.json`)
  writeFileSync(
    path,
    JSON.stringify({ brimble: 'bundle', version: 1, edits: [{ ...edit, highlight, recordings: [numbered] }] }),
  )
  return path
}

/** The same as a bundle that carries its recording. */
async function bundleFile(folder: string, n: number, seconds: number): Promise<string> {
  const bytes = new Blob([new Uint8Array(readFileSync(made('numbered.mp4')))])
  const bundle = JSON.parse(readFileSync(editFile(folder, n, seconds), 'utf8')) as object
  const zip = new ZipWriter(new BlobWriter('application/zip'), { level: 0 })
  await zip.add('media/1.mp4', new BlobReader(bytes))
  await zip.add(
    'bundle.json',
    new TextReader(
      JSON.stringify({
        ...bundle,
        carried: [{ id: 'r', entry: 'media/1.mp4', sizeBytes: bytes.size, trimmed: false }],
      }),
    ),
  )
  const path = join(folder, `glide-${n}.brimble.zip`)
  writeFileSync(path, new Uint8Array(await (await zip.close()).arrayBuffer()))
  return path
}

/** Hands out what lies in a media folder by name, as a file server would. */
async function serveMedia(media: string): Promise<{ address: string; close: () => void }> {
  const server = createServer((request, response) => {
    const name = basename(decodeURIComponent(request.url ?? ''))
    const path = [join(media, name), join(media, 'evenings', name)].find((p) => existsSync(p))
    if (path) createReadStream(path).pipe(response)
    else response.writeHead(404).end()
  })
  const port = await freePort()
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve))
  return { address: `http://127.0.0.1:${port}/`, close: () => (server.closeAllConnections(), server.close()) }
}

function mediaFolder(): string {
  const media = tempDir('media')
  mkdirSync(join(media, 'evenings'))
  copyFileSync(made('numbered.mp4'), join(media, 'evenings', 'numbered.mp4'))
  return media
}

const named = (lines: ReturnType<typeof start>['lines'], event: string) => lines.filter((l) => l.event === event)

test.describe('render nodes, with a Redis of their own', () => {
  let redis: OwnRedis
  const running: ReturnType<typeof start>[] = []
  const node = (out: string, media: string, name: string) => {
    const started = start(NODE, [
      '--redis',
      redis.url,
      '--media',
      media,
      '--out',
      out,
      '--name',
      name,
      '--stalled-after',
      '3',
    ])
    running.push(started)
    return started
  }

  test.beforeEach(async () => {
    redis = await OwnRedis.start()
  })

  test.afterEach(async () => {
    for (const { child } of running.splice(0)) child.kill('SIGKILL')
    await redis.stop()
  })

  test('a node killed in mid-render and a queue that goes away: every file is made, once, whole', async () => {
    const [media, out, edits] = [mediaFolder(), tempDir('out'), tempDir('edits')]
    const files = [...[1, 2, 3].map((n) => editFile(edits, n, n === 1 ? 8 : 2)), await bundleFile(edits, 4, 2)]
    const one = node(out, media, 'one')
    await one.until('ready')
    // The long one first: it is the one that is cut short.
    const asked = start(SUBMIT, [String(files[0]), '--redis', redis.url, '--urgency', '10'])
    await one.until('started')
    one.child.kill('SIGKILL')
    expect(await asked.ended).toBe(0)
    expect(named(one.lines, 'finished')).toEqual([])
    // The other one has no folder of recordings, but an address that they are copied from.
    const server = await serveMedia(media)
    const submission = [...files, '--redis', redis.url, '--media', media]
    const waited = start(SUBMIT, [...submission, '--wait'])
    // All four are asked for before anybody can have finished the one that was cut short.
    await waited.until('queued', 3)
    const two = node(out, server.address, 'two')
    await two.until('started')
    await redis.stop()
    await waited.until('waiting')
    await redis.start()
    expect(await waited.ended).toBe(0)
    expect(named(waited.lines, 'waiting')).toHaveLength(1)
    expect(named(waited.lines, 'queued')).toHaveLength(3)
    expect(named(waited.lines, 'finished')).toHaveLength(4)
    const videos = readdirSync(out).filter((name) => name.endsWith('.mp4'))
    expect(videos.map((name) => name.slice(0, 13)).sort()).toEqual([
      'Final glide 1',
      'Final glide 2',
      'Final glide 3',
      'Final glide 4',
    ])
    for (const name of videos)
      expect(Number(ffprobe(join(out, name)).video.nb_read_frames)).toBe(
        30 * (name.startsWith('Final glide 1') ? 8 : 2),
      )
    // Asked for again, nothing is made again.
    const again = runToEnd(SUBMIT, submission)
    expect(again.lines.map((l) => l.event)).toEqual(['made', 'made', 'made', 'made'])
    two.child.kill('SIGINT')
    expect(await two.ended).toBe(0)
    server.close()
    // The killed node's leavings are swept by the next on that machine; nothing but files is left in the end.
    expect(readdirSync(out).filter((name) => !name.endsWith('.mp4'))).toEqual([])
  })

  test('a node that was away too long finishes nothing that another has; one that is told to go gives its job back at once', async () => {
    const [media, edits, outs] = [mediaFolder(), tempDir('edits'), [tempDir('one'), tempDir('two')]]
    const [one, two] = outs.map((out, n) => node(out, media, `node-${n}`))
    if (!one || !two) throw new Error('no nodes')
    await Promise.all([one.until('ready'), two.until('ready')])
    const waited = start(SUBMIT, [editFile(edits, 1, 5), '--redis', redis.url, '--wait'])
    await Promise.race([one.until('started'), two.until('started')])
    const [asleep, awake] = one.lines.some((l) => l.event === 'started') ? [one, two] : [two, one]
    asleep.child.kill('SIGSTOP')
    await awake.until('finished')
    asleep.child.kill('SIGCONT')
    await asleep.until('failed')
    expect(await waited.ended).toBe(0)
    const made = outs.map((out) => readdirSync(out).filter((name) => name.endsWith('.mp4')).length)
    expect(made).toEqual(awake === one ? [1, 0] : [0, 1])

    const next = start(SUBMIT, [editFile(edits, 2, 5), '--redis', redis.url, '--wait'])
    await Promise.race([one.until('started', 2), two.until('started', 2)])
    const leaving = named(one.lines, 'started').length === 2 ? one : two
    leaving.child.kill('SIGTERM')
    expect(await leaving.ended).toBe(0)
    expect(await next.ended).toBe(0)
    expect(outs.flatMap((out) => readdirSync(out).filter((name) => name.startsWith('Final glide 2')))).toHaveLength(1)
  })

  test('a disk made full, and a recording that nobody has: the jobs end as failed, with their reasons', async () => {
    const [media, edits, out] = [mediaFolder(), tempDir('edits'), tempDir('small-disk')]
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=24k', 'tmpfs', out]).status === 0
    test.skip(!mounted, 'a small disk can only be made by root')
    try {
      const full = editFile(edits, 1, 2)
      const lost = editFile(edits, 2, 2)
      writeFileSync(lost, readFileSync(lost, 'utf8').replace('numbered.mp4', 'never-recorded.mp4'))
      await node(out, media, 'full').until('ready')
      const waited = start(SUBMIT, [full, lost, '--redis', redis.url, '--attempts', '2', '--wait'])
      expect(await waited.ended).toBe(1)
      const reasons = named(waited.lines, 'failed').map((l) => String(l.reason))
      expect(reasons.sort()).toEqual([expect.stringMatching(/^no-room/), 'source-missing: never-recorded.mp4'])
      expect(readdirSync(out).filter((name) => name.endsWith('.mp4'))).toEqual([])
    } finally {
      for (const { child, ended } of running.splice(0)) {
        child.kill('SIGTERM')
        await ended
      }
      spawnSync('umount', ['-l', out])
    }
  })

  test('what anybody may have written into Redis: nothing is made outside the folder, and what will not go away is not tried again', async () => {
    const [media, edits, place] = [mediaFolder(), tempDir('edits'), tempDir('place')]
    const out = join(place, 'deep', 'out')
    const {
      edits: [edit],
    } = JSON.parse(readFileSync(editFile(edits, 1, 1), 'utf8')) as { edits: object[] }
    const settings = { frameRate: { num: 30, den: 1 }, videoBitrate: 2_000_000, audioBitrate: 128_000 }
    const job = {
      id: 'one',
      highlight: 'h',
      name: '../../escaped',
      frames: 30,
      at: 0,
      file: { shape: { id: 'small', width: 270, height: 480 }, settings },
      text: JSON.stringify({ brimble: 'bundle', version: 1, edits: [edit] }),
    }
    const started = node(out, media, 'careful')
    await started.until('ready')
    const connection = connect(redis.url)
    const queue = openQueue(connection)
    await submit(queue, job)
    await submit(queue, { ...job, id: 'two', bundle: { fileName: '../../../secret.zip', sizeBytes: 1 } })
    await started.until('finished')
    await started.until('failed')
    expect(named(started.lines, 'failed')).toMatchObject([{ job: 'two', reason: 'bad-job' }])
    expect(readdirSync(place)).toEqual(['deep'])
    expect(readdirSync(out).filter((name) => name.endsWith('.mp4'))).toEqual(['escaped one.mp4'])
    // The folder is taken away: the first try says so, and there is no second.
    rmSync(join(place, 'deep'), { recursive: true })
    await submit(queue, { ...job, id: 'three' })
    await started.until('failed', 2)
    await expect.poll(async () => (await queue.getJob('three'))?.getState()).toBe('failed')
    expect((await queue.getJob('three'))?.attemptsMade).toBe(1)
    await queue.close()
    await connection.quit()
  })

  test('a Redis with a password and TLS, by its address alone', async () => {
    const [media, edits, out] = [mediaFolder(), tempDir('edits'), tempDir('out')]
    const closed = await OwnRedis.start('glide & ridge')
    const trusted = { NODE_EXTRA_CA_CERTS: closed.certificate }
    try {
      const submission = [editFile(edits, 1, 1), '--redis', closed.url, '--wait']
      const worker = start(NODE, ['--redis', closed.url, '--media', media, '--out', out, '--name', 'closed'], trusted)
      running.push(worker)
      await worker.until('ready')
      expect(await start(SUBMIT, submission, trusted).ended).toBe(0)
      expect(readdirSync(out).filter((name) => name.endsWith('.mp4'))).toHaveLength(1)
      // A wrong password is said at once, and not waited for.
      const wrong = start(SUBMIT, [String(submission[0]), '--redis', closed.url.replace('glide', 'slide')], trusted)
      expect([await wrong.ended, wrong.said()]).toEqual([2, expect.stringContaining('Redis refuses: WRONGPASS')])
    } finally {
      await closed.stop()
    }
  })

  test('the Outbox hands over what waits, takes it back, and tells of the file that a node made', async ({ page }) => {
    const [media, out] = [mediaFolder(), tempDir('out')]
    const port = await freePort()
    const server = spawn(
      process.execPath,
      ['node_modules/next/dist/bin/next', 'start', '-p', String(port), '-H', 'localhost'],
      { stdio: 'ignore', env: { ...process.env, BRIMBLE_REDIS: redis.url, BRIMBLE_MEDIA: media } },
    )
    try {
      await choosePlainly(page)
      await expect(async () => expect((await page.goto(`http://localhost:${port}/`))?.ok()).toBe(true)).toPass()
      await toBench(page, made('numbered.mp4'), 'numbered')
      for (const waits of [1, 2]) {
        await page.getByRole('button', { name: 'Render', exact: true }).click()
        await page.getByRole('dialog').getByRole('button', { name: 'Render 1 file' }).click()
        await expect(page.getByRole('link', { name: new RegExp(`^${waits} to go`) })).toBeVisible()
      }
      await page.getByRole('link', { name: 'Outbox' }).click()
      await page.getByRole('button', { name: 'Pause the queue' }).click()
      const hand = page.getByRole('button', { name: 'Hand 1 to the render nodes' })
      const away = page.locator('article[data-state=away]')
      await hand.click()
      await expect(away).toContainText('waiting for one')
      await away.getByRole('button', { name: 'Take back' }).click()
      await expect(page.locator('article[data-state=waiting]')).toHaveCount(1)
      // Nothing answers: what waits stays where it is, and is not handed over behind one's back later.
      await redis.stop()
      await hand.click()
      await expect(page.getByText('The render nodes’ queue does not answer.')).toBeVisible()
      await expect(page.locator('article[data-state=waiting]')).toHaveCount(1)
      await redis.start()
      const asked = await page.request.get(`http://localhost:${port}/api/render-nodes?ids=x`, {
        headers: { 'sec-fetch-site': 'same-origin' },
      })
      expect(await asked.json()).toMatchObject({ jobs: [{ state: 'unknown' }] })
      await hand.click()
      await expect(away).toHaveCount(1)
      node(out, media, 'upstairs')
      const finished = page.locator('article[data-state=made-away]')
      await expect(finished).toContainText('by upstairs', { timeout: 90_000 })
      const [name = ''] = readdirSync(out).filter((file) => file.endsWith('.mp4'))
      await expect(finished).toContainText(name)
      expect(ffprobe(join(out, name)).video).toMatchObject({
        width: 1080,
        height: 1920,
        nb_read_frames: String(30 * 14),
      })
    } finally {
      server.kill()
    }
  })
})
