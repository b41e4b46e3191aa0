// Render nodes on this machine: the demo highlight in six files by one node and by two; what a job asks of Redis;
// what the queue alone manages; and from these a day with many nodes.
import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Queue, Worker } from 'bullmq'
import { root } from '../scripts/commands.mjs'
import { OwnRedis, start, tempDir } from '../tests/support/processes.mjs'
import { connect } from '../unattended/queue.mjs'
import { arrivals, seeded, simulate } from './nodesSimulation.mjs'

const JOBS = 6
const NOTHINGS = 5000

/** A script of `unattended/`. */
const begin = (script, args) => start(join(root, 'unattended', script), args)

/** The demo's first highlight as a file of its own, in as many copies as are asked for. */
async function editFiles(page, folder, copies) {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  await page.getByRole('button', { name: 'Export' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: /^Edit alone/ }).click()
  const text = readFileSync(await (await download).path(), 'utf8')
  return copies.map((n) => {
    const path = join(folder, `${n}.brimble.json`)
    const bundle = JSON.parse(text)
    bundle.edits[0].highlight.name += ` ${n}`
    writeFileSync(path, JSON.stringify(bundle))
    return path
  })
}

async function commandsSoFar(connection) {
  return Number(/total_commands_processed:(\d+)/.exec(await connection.info('stats'))[1])
}

/** Wall seconds for `files` with so many nodes, from when all are ready; and what each file took. */
async function withNodes(count, { redis, files, media, out }) {
  const nodes = Array.from({ length: count }, (_, n) =>
    begin('node.mjs', ['--redis', redis.url, '--media', media, '--out', out, '--name', `node-${n + 1}`]),
  )
  await Promise.all(nodes.map((n) => n.until('ready')))
  const connection = connect(redis.url)
  const before = await commandsSoFar(connection)
  const from = performance.now()
  const submit = begin('submit.mjs', [...files, '--redis', redis.url, '--shape', 'tall', '--wait'])
  await submit.ended
  const made = submit.lines.filter((l) => l.event === 'finished')
  if (made.length !== files.length) throw new Error(`${made.length} of ${files.length} were made`)
  const commands = (await commandsSoFar(connection)) - before
  await connection.quit()
  for (const { child } of nodes) child.kill('SIGINT')
  await Promise.all(nodes.map((n) => n.ended))
  const started = nodes.flatMap((n) => n.lines.filter((l) => l.event === 'started').map((l) => l.at))
  const ended = nodes.flatMap((n) => n.lines.filter((l) => l.event === 'finished').map((l) => l.at))
  return {
    seconds: (Math.max(...ended) - Math.max(from, Math.min(...started))) / 1000,
    jobSeconds: made.map((l) => l.tookMs / 1000),
    commandsPerJob: commands / files.length,
  }
}

/** Jobs a second that the queue passes on when there is nothing to do in them. */
async function queueAlone(redis) {
  const connection = connect(redis.url)
  const queue = new Queue('nothings', { connection })
  const data = { text: 'x'.repeat(20_000) }
  const from = performance.now()
  for (let n = 0; n < NOTHINGS; n += 500)
    await queue.addBulk(
      Array.from({ length: 500 }, () => ({ name: 'nothing', data, opts: { removeOnComplete: true } })),
    )
  let left = NOTHINGS
  await new Promise((resolve) => {
    const worker = new Worker('nothings', async () => {}, { connection, concurrency: 50 })
    worker.on('completed', () => --left === 0 && worker.close().then(resolve))
  })
  const seconds = (performance.now() - from) / 1000
  await queue.close()
  await connection.quit()
  return NOTHINGS / seconds
}

/** A day with many nodes, from job times measured here. */
function aDay(jobSeconds, nodes, jobs, peak, losses) {
  const random = seeded(11)
  return simulate({
    times: arrivals(jobs, random, peak),
    nodes,
    jobSeconds: () => jobSeconds[Math.floor(random() * jobSeconds.length)],
    random,
    losses,
  })
}

export async function renderNodes({ page, memory }) {
  const folder = tempDir('nodes')
  const [media, out] = [join(root, 'public', 'demo'), join(folder, 'out')]
  const redis = await OwnRedis.start()
  try {
    const files = await editFiles(
      page,
      folder,
      Array.from({ length: 2 * JOBS }, (_, n) => n + 1),
    )
    const one = await withNodes(1, { redis, files: files.slice(0, JOBS), media, out })
    const two = await withNodes(2, { redis, files: files.slice(JOBS), media, out })
    const sizes = readdirSync(out).length
    const alone = await queueAlone(redis)
    const say = (words) => process.stdout.write(`  ${words}\n`)
    say(
      `${sizes} files; one node ${one.seconds.toFixed(1)} s, two on the same two cores ${two.seconds.toFixed(1)} s; ${one.commandsPerJob.toFixed(0)} commands a job; the queue alone ${alone.toFixed(0)} jobs a second`,
    )
    const evening = { share: 0.5, fromHour: 20, hours: 3 }
    for (const [nodes, jobs] of [
      [20, 20_000],
      [50, 50_000],
      [100, 100_000],
      [100, 140_000],
      [150, 100_000],
      [300, 300_000],
    ])
      for (const [how, peak, losses] of [
        ['evenly', null, 0],
        ['half in three hours', evening, 0],
        ['half in three hours, 1 % lost', evening, 0.01],
      ]) {
        const { mean, p95, longest, used, end } = aDay(one.jobSeconds, nodes, jobs, peak, losses)
        say(
          `${nodes} nodes, ${jobs} jobs, ${how}: waits ${mean.toFixed(0)} s, 95 % ${p95.toFixed(0)} s, longest ${longest.toFixed(0)} s, used ${(100 * used).toFixed(0)} %, done at ${(end / 3600).toFixed(1)} h`,
        )
      }
    const peak = await memory.peak()
    return [{ name: 'render-nodes', seconds: two.seconds, referenceSeconds: one.seconds, ...peak }]
  } finally {
    await redis.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
