// `npm run render -- <highlight.brimble.json | bundle.zip>… --media <dir> --out <dir>`: renders without a person. See docs/unattended.md.
import { basename } from 'node:path'
import { ensureBuild, ensureModules } from '../scripts/prepare.mjs'
import { EXIT, fromHere, readCall, runCommand, say } from './command.mjs'
import { openEngine } from './engine.mjs'
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
  const { values, files } = readCall(HELP, { ...WISH_OPTIONS, media: { type: 'string' }, out: { type: 'string' }, json: { type: 'boolean', default: false } }, ['out'], true)
  return { files, wish: wishOf(values), media: fromHere(values.media), out: fromHere(values.out), json: values.json, chromium: values.chromium }
}

/** Prints what happens: as JSON lines, or in words. */
function teller(json) {
  let printed = 0
  const words = {
    planned: (e) => `${e.highlights} ${e.highlights === 1 ? 'highlight' : 'highlights'}, ${e.files} ${e.files === 1 ? 'file' : 'files'}`,
    started: (e) => `${e.highlight}: ${e.shapes.join(', ')}`,
    progress: (e) => `  ${Math.floor((100 * e.frame) / e.frames)} %, ${Math.round(e.rate)} frames a second, ${Math.ceil(e.secondsLeft)} s left`,
    finished: (e) => `  made ${e.names.join(', ')} (${(e.sizeBytes / 1e6).toFixed(1)} MB, ${(e.tookMs / 1000).toFixed(1)} s)`,
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
  if (reason === 'source-missing') return differs ? `“${fileName}” in the media folder is another file of that name` : `“${fileName}” was not found`
  if (reason === 'unknown-shape') return `there is no shape “${detail}”`
  return [reason, fileName && `“${fileName}”`, detail].filter(Boolean).join(': ')
}

async function main() {
  const call = readRender()
  const tell = teller(call.json)
  await ensureModules()
  await ensureBuild()
  const index = call.media ? indexMedia(call.media) : new Map()
  const engine = await openEngine(call)
  let interrupted = false
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      interrupted = true
      void engine.close().then(() => process.exit(EXIT.interrupted))
    })
  try {
    return await work(engine, call, index, tell)
  } catch (error) {
    // What was being rendered when the browser was told to go.
    if (interrupted) return EXIT.interrupted
    throw error
  } finally {
    if (!interrupted) await engine.close()
  }
}

async function work(engine, { files, wish, out }, index, tell) {
  const session = await engine.session()
  const { highlights, refused } = await session.plan(files, wish)
  const count = { finished: 0, failed: 0 }
  const fail = (what) => (count.failed++, tell('failed', what))
  tell('planned', { highlights: highlights.length, files: highlights.reduce((sum, h) => sum + h.files.length, 0) })
  for (const { from, reason, detail } of refused) fail({ from: basename(from), reason, detail })
  for (const { at, from, name, files: wanted, needs } of highlights) {
    const about = (id) => ({ highlight: name, shape: wanted.find((w) => w.id === id).shape.id })
    const sources = findNeeds(index, needs)
    if (!sources.ok) {
      for (const { id } of wanted) fail({ from, ...about(id), reason: 'source-missing', fileName: sources.missing, differs: sources.differs })
      continue
    }
    tell('started', { highlight: name, shapes: wanted.map((w) => w.shape.id), frames: wanted[0]?.frames ?? 0 })
    const finished = []
    await session.render(at, wanted.map((w) => w.id), sources.found, async ({ kind, ...what }) => {
      if (kind === 'progress') tell('progress', { highlight: name, ...what })
      else if (kind === 'finished') finished.push(what)
      else fail({ ...about(what.id), ...(what.failure ?? { reason: kind }) })
    })
    for (const { id, files: parts, ...made } of finished) {
      try {
        const whole = []
        for (const part of parts) whole.push({ from: await session.fetch(id, part), name: part.name })
        tell('finished', { ...about(id), ...made, names: placeTogether(whole, out) })
        count.finished++
      } catch (error) {
        fail({ ...about(id), reason: error.code === 'ENOSPC' ? 'no-room' : 'broken', detail: error.message })
      }
      await session.forget(id)
    }
  }
  tell('ended', count)
  return count.failed === 0 ? EXIT.made : EXIT.someFailed
}

await runCommand(main)
