// `npm run render -- <highlight.brimble.json | bundle.zip>… --media <dir> --out <dir>`: renders without a person. See
// docs/unattended.md.
import { basename } from 'node:path'
import { ensureBuild, ensureModules } from '../scripts/prepare.mjs'
import { EXIT, fromHere, readCall, runCommand, say } from './command.mjs'
import { EngineGone, openEngine } from './engine.mjs'
import { findNeeds, indexMedia } from './media.mjs'
import { placeTogether } from './place.mjs'
import { WISH_HELP, WISH_OPTIONS, wishOf } from './wish.mjs'

const HELP = `npm run render -- <highlight.brimble.json | bundle.zip>… --out <dir> [--media <dir>] [options]

  --media <dir>         where recordings, pictures, sounds and fonts are that did not come along
  --out <dir>           where finished files go; none that is there is replaced
${WISH_HELP}
  --json                progress as one JSON object a line
  --chromium <path>     the browser that renders

Ends with 0 when every file was made, 1 when some were not, 2 when the call makes no sense, 130 when it was interrupted.
`

/** Progress is printed for a person at most this often. */
const PRINT_EVERY_MS = 5000

function readRender() {
  const { values, files } = readCall(
    HELP,
    { ...WISH_OPTIONS, media: { type: 'string' }, out: { type: 'string' }, json: { type: 'boolean', default: false } },
    ['out'],
    true,
  )
  return {
    files,
    wish: wishOf(values),
    media: fromHere(values.media),
    out: fromHere(values.out),
    json: values.json,
    chromium: values.chromium,
  }
}

/** Prints what happens: as JSON lines, or in words. */
function teller(json) {
  let printed = 0
  const words = {
    planned: (e) =>
      `${e.highlights} ${e.highlights === 1 ? 'highlight' : 'highlights'}, ${e.files} ${e.files === 1 ? 'file' : 'files'}`,
    started: (e) => `${e.highlight}: ${e.shapes.join(', ')}`,
    progress: (e) =>
      `  ${Math.floor((100 * e.frame) / e.frames)} %, ${Math.round(e.rate)} frames a second, ${Math.ceil(e.secondsLeft)} s left`,
    finished: (e) =>
      `  made ${e.names.join(', ')} (${(e.sizeBytes / 1e6).toFixed(1)} MB, ${(e.tookMs / 1000).toFixed(1)} s)`,
    failed: (e) => `  ${e.shape ?? e.from}: ${wordsOf(e)}`,
    ended: (e) => `${e.finished} made, ${e.failed} not.`,
  }
  return (event, what) => {
    if (json) return void say(event, what)
    const now = Date.now()
    if (event === 'progress' && now - printed < PRINT_EVERY_MS) return
    if (event === 'progress') printed = now
    process.stdout.write(`${words[event](what)}\n`)
  }
}

function wordsOf({ reason, detail, fileName, differs }) {
  if (reason === 'source-missing')
    return differs ? `“${fileName}” in the media folder is another file of that name` : `“${fileName}” was not found`
  if (reason === 'unknown-shape') return `there is no shape “${detail}”`
  return [reason, fileName && `“${fileName}”`, detail].filter(Boolean).join(': ')
}

/** An engine with the highlights of a call planned in it; another one when it breaks down. */
class Planned {
  engine = null
  session = null
  plan = null

  constructor(call) {
    this.call = call
  }

  async open() {
    this.engine = await openEngine(this.call)
    this.session = await this.engine.session()
    this.plan = await this.session.plan(this.call.files, this.call.wish)
  }

  async openAgain() {
    await this.close()
    await this.open()
  }

  async close() {
    await this.engine?.close()
  }
}

async function main() {
  const call = readRender()
  const tell = teller(call.json)
  await ensureModules()
  await ensureBuild()
  const index = call.media ? indexMedia(call.media) : new Map()
  const planned = new Planned(call)
  let interrupted = false
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      interrupted = true
      void planned.close().then(() => process.exit(EXIT.interrupted))
    })
  try {
    await planned.open()
    return await work(planned, call, index, tell)
  } catch (error) {
    // What was being rendered when the browser was told to go.
    if (interrupted) return EXIT.interrupted
    throw error
  } finally {
    if (!interrupted) await planned.close()
  }
}

async function work(planned, { out }, index, tell) {
  const { highlights, refused } = planned.plan
  const count = { finished: 0, failed: 0 }
  const fail = (what) => (count.failed++, tell('failed', what))
  tell('planned', { highlights: highlights.length, files: highlights.reduce((sum, h) => sum + h.files.length, 0) })
  for (const { from, reason, detail } of refused) fail({ from: basename(from), reason, detail })
  for (const highlight of highlights) {
    const { from, name, files: wanted, needs } = highlight
    const about = (id) => ({ highlight: name, shape: wanted.find((w) => w.id === id).shape.id })
    const sources = findNeeds(index, needs)
    if (!sources.ok) {
      for (const { id } of wanted)
        fail({ from, ...about(id), reason: 'source-missing', fileName: sources.missing, differs: sources.differs })
      continue
    }
    tell('started', { highlight: name, shapes: wanted.map((w) => w.shape.id), frames: wanted[0]?.frames ?? 0 })
    const open = new Set(wanted.map((w) => w.id))
    const end = (id, event, what) => {
      open.delete(id)
      if (event === 'failed') fail({ ...about(id), ...what })
      else {
        count.finished++
        tell('finished', { ...about(id), ...what })
      }
    }
    try {
      await make(planned.session, highlight, sources.found, out, tell, end)
    } catch (error) {
      if (!(error instanceof EngineGone)) throw error
      // What it had at work has failed; the rest goes on in another.
      for (const id of [...open]) end(id, 'failed', { reason: 'broken', detail: error.message })
      await planned.openAgain()
    }
  }
  tell('ended', count)
  return count.failed === 0 ? EXIT.made : EXIT.someFailed
}

/** Makes a highlight's files and gives them their names. `end(id, event, what)` is told how each ended. */
async function make(session, { at, name, files: wanted }, sources, out, tell, end) {
  const finished = []
  await session.render(
    at,
    wanted.map((w) => w.id),
    sources,
    async ({ kind, id, ...what }) => {
      if (kind === 'progress') tell('progress', { highlight: name, ...what })
      else if (kind === 'finished') finished.push({ id, ...what })
      else end(id, 'failed', what.failure ?? { reason: kind })
    },
  )
  for (const { id, files: parts, ...made } of finished) {
    try {
      const whole = []
      for (const part of parts) whole.push({ from: await session.fetch(id, part), name: part.name })
      end(id, 'finished', { ...made, names: placeTogether(whole, out) })
    } catch (error) {
      if (error instanceof EngineGone) throw error
      end(id, 'failed', { reason: error.code === 'ENOSPC' ? 'no-room' : 'broken', detail: error.message })
    }
    await session.forget(id)
  }
}

await runCommand(main)
