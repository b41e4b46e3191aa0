// `npm run bench [name…]`: speeds of the real application in headless Chromium, each beside ffmpeg in the same run.
// Writes bench/results.json: [{ name, seconds, referenceSeconds, ratio, privateMb, ownMb, residentMb }]; rows of
// benchmarks that were not run stay. See docs/performance.md.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { openBrimble } from '../scripts/headless.mjs'
import { watchMemory } from '../tests/support/tabMemory.mjs'
import { afterEdit } from './afterEdit.mjs'
import { along } from './along.mjs'
import { arrangements } from './arrangements.mjs'
import { drafts } from './drafts.mjs'
import { dragRegion } from './dragRegion.mjs'
import { encoders } from './encoders.mjs'
import { length, shapes, table, words } from './engine.mjs'
import { findRegions } from './findRegions.mjs'
import { analysis, firstPicture } from './longRecordings.mjs'
import { playback } from './playback.mjs'
import { previewCopies } from './previewCopies.mjs'
import { renderNodes } from './renderNodes.mjs'
import { standard } from './standard.mjs'
import { threeShapes } from './threeShapes.mjs'
import { unattended } from './unattended.mjs'

const benches = {
  standard,
  'three-shapes': threeShapes,
  unattended,
  'first-picture': firstPicture,
  'find-regions': findRegions,
  along,
  'drag-region': dragRegion,
  playback,
  'preview-copies': previewCopies,
  arrangements,
  'after-edit': afterEdit,
  analysis,
  drafts,
  'render-nodes': renderNodes,
  words,
  shapes,
  table,
  length,
  encoders,
}

const wanted = process.argv.slice(2)
for (const name of wanted)
  if (!(name in benches))
    throw new RangeError(`there is no benchmark called ${name}; there are ${Object.keys(benches).join(', ')}`)

const results = []
for (const [name, bench] of Object.entries(benches)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  // A browser of its own for each: what one leaves behind is not the next one's.
  const brimble = await openBrimble(4790)
  const memory = watchMemory(brimble.browserSession)
  try {
    for (const row of await bench({ page: brimble.page, memory })) {
      const result = { ...row, ratio: row.seconds / row.referenceSeconds }
      results.push(result)
      process.stdout.write(
        `${result.name}: ${result.seconds.toFixed(2)} s, ${Number.isFinite(result.ratio) ? `ffmpeg ${result.referenceSeconds.toFixed(2)} s, ratio ${result.ratio.toFixed(2)}, ` : ''}the tab at its highest ${result.privateMb.toFixed(0)} MB private, ${result.ownMb.toFixed(0)} MB of its own, ${result.residentMb.toFixed(0)} MB resident\n`,
      )
    }
  } finally {
    memory.stop()
    await brimble.close()
  }
}
const kept = join(root, 'bench', 'results.json')
const known = existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')) : []
const rows = [...known.filter((row) => !results.some((r) => r.name === row.name)), ...results]
writeFileSync(kept, `${JSON.stringify(rows, null, 2)}\n`)
