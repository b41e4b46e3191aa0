// `npm run render:submit -- <highlight.brimble.json | bundle.zip>… --redis <url>`: hands highlights to render nodes.
// See docs/render-nodes.md.
import { createHash } from 'node:crypto'
import { copyFileSync, createReadStream, existsSync, renameSync, statSync } from 'node:fs'
import { basename, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { ensureBuild, ensureModules } from '../scripts/prepare.mjs'
import { EXIT, fromHere, readCall, runCommand, say, Unusable, wholeNumber } from './command.mjs'
import { openEngine } from './engine.mjs'
import { WISH_HELP, WISH_OPTIONS, wishOf } from './wish.mjs'

// The queue's packages may have to be installed first.
await ensureModules()
const { connect, openQueue, standing, submit, USUAL_ATTEMPTS, whenReady } = await import('./queue.mjs')

const HELP = `npm run render:submit -- <highlight.brimble.json | bundle.zip>… --redis <url> [options]

  --redis <url>         for example redis://localhost:6379; with a password redis://:secret@host, with TLS rediss://host
  --media <dir>         the nodes' media folder: bundles that carry files are copied there
  --urgency <1 to 10>   10 is made first (default 5)
  --attempts <n>        how often a job is begun before it has failed (default ${USUAL_ATTEMPTS})
  --wait                stays until every file is made or has failed
${WISH_HELP}
  --chromium <path>     the browser that reads highlights

Prints a JSON object a line. Ends with 0 when all was handed over (with --wait: made), 1 when some was not, 2 when the call makes no sense.
`

const ASK_EVERY_MS = 1000

function readSubmission() {
  const { values, files } = readCall(
    HELP,
    {
      ...WISH_OPTIONS,
      redis: { type: 'string' },
      media: { type: 'string' },
      urgency: { type: 'string', default: '5' },
      attempts: { type: 'string', default: String(USUAL_ATTEMPTS) },
      wait: { type: 'boolean', default: false },
    },
    ['redis'],
    true,
  )
  return {
    files,
    wish: wishOf(values),
    redis: values.redis,
    media: fromHere(values.media),
    urgency: wholeNumber('urgency', values.urgency, 1, 10),
    attempts: wholeNumber('attempts', values.attempts, 1, 100),
    wait: values.wait,
    chromium: values.chromium,
  }
}

/** Puts a bundle where nodes find it, under a name of what it holds. */
async function leaveWithNodes(path, media) {
  if (!media) throw new Unusable(`${basename(path)} carries files: say with --media where the nodes look for them`)
  const hash = createHash('sha256')
  await pipeline(createReadStream(path), hash)
  const fileName = `${hash.digest('hex').slice(0, 32)}.brimble.zip`
  const to = join(media, fileName)
  if (!existsSync(to)) {
    copyFileSync(path, `${to}.part`)
    renameSync(`${to}.part`, to)
  }
  return { fileName, sizeBytes: statSync(to).size }
}

/**
 * The jobs of a call, and what was refused of it. Each file is planned on its own: which of its edits a highlight is,
 * is its place.
 */
async function jobsOf({ files, wish, media, chromium }) {
  const engine = await openEngine({ chromium })
  try {
    const jobs = []
    const refused = []
    for (const path of files) {
      const session = await engine.session()
      const plan = await session.plan(path, wish)
      refused.push(...plan.refused)
      for (const { at, name: highlight, files: wanted, carries } of plan.highlights) {
        const source = carries
          ? { bundle: await leaveWithNodes(path, media), at }
          : { text: await session.alone(at), at: 0 }
        for (const { id, name, frames, shape, settings } of wanted)
          jobs.push({ id, highlight, name, frames, file: { shape, settings }, ...source })
      }
      await session.close()
    }
    return { jobs, refused }
  } finally {
    await engine.close()
  }
}

async function untilEnded(queue, ids) {
  let failed = 0
  const open = new Set(ids)
  while (open.size > 0) {
    for (const { id, state, failedReason, made } of await standing(queue, [...open])) {
      if (!['completed', 'failed', 'unknown'].includes(state)) continue
      open.delete(id)
      if (state === 'completed') say('finished', { job: id, ...made })
      else failed += (say('failed', { job: id, reason: failedReason ?? 'unknown' }), 1)
    }
    if (open.size > 0) await new Promise((r) => setTimeout(r, ASK_EVERY_MS))
  }
  return failed
}

async function main() {
  const call = readSubmission()
  await ensureBuild()
  const connection = connect(call.redis)
  await whenReady(connection).catch((error) => {
    throw new Unusable(`Redis refuses: ${error.message}`)
  })
  const { jobs, refused } = await jobsOf(call)
  for (const one of refused) say('refused', one)
  const queue = openQueue(connection)
  for (const job of jobs) say(await submit(queue, job, call), { job: job.id, name: job.name })
  const failed = call.wait
    ? await untilEnded(
        queue,
        jobs.map((j) => j.id),
      )
    : 0
  await queue.close()
  await connection.quit()
  return refused.length + failed === 0 ? EXIT.made : EXIT.someFailed
}

await runCommand(main)
