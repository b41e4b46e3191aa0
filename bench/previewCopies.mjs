// Preview copies of a minute of highlight: how soon after the Bench has its first picture all of it is there, and how
// fast they are made with nothing else to do.
import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { inDatabase } from '../tests/support/inDatabase.mjs'
import { yardstick } from './measure.mjs'

/** Seconds of recording in a piece; the minute and what lies beside it are so many. */
const PIECE_SECONDS = 8
const PIECES = 8
const PATIENCE_MS = 180_000

const indices = (page) =>
  inDatabase(page, async (db, done) =>
    (await done(db.transaction('previewCopies').objectStore('previewCopies').getAllKeys())).map(([, index]) => index),
  )

/** Seconds until there are copies of all pieces, and when each came, ms. */
async function untilThere(page) {
  const from = performance.now()
  const came = []
  while (came.length < PIECES) {
    const there = (await indices(page)).length
    while (came.length < there) came.push(performance.now() - from)
    if (performance.now() - from > PATIENCE_MS) throw new Error(`${came.length} of ${PIECES} copies`)
    await page.waitForTimeout(100)
  }
  return came
}

export async function previewCopies({ page, memory }) {
  const recording = join(mkdtempSync(join(tmpdir(), 'brimble-bench-')), 'minute.mp4')
  const stream = join(root, 'public/demo/ridge-cup-stream.mp4')
  const looped = ['-stream_loop', '4', '-i', stream, '-c', 'copy', '-t', '60', recording]
  execFileSync('ffmpeg', ['-v', 'error', ...looped])
  await addToShelf(page, recording)
  await page.getByRole('button', { name: /^Cut a highlight from minute/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  const opening = (await untilThere(page)).at(-1) / 1000
  const opened = await memory.peak()
  // With nothing else to do: everything has been found and looked at by then.
  await page.waitForTimeout(30_000)
  await inDatabase(page, (db, done) =>
    done(db.transaction('previewCopies', 'readwrite').objectStore('previewCopies').clear()),
  )
  await page.reload()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  const came = await untilThere(page)
  const alone = (came.at(-1) - came[0]) / 1000
  const speed = ((PIECES - 1) * PIECE_SECONDS) / alone
  const stick = yardstick()
  process.stdout.write(
    `  a minute of 1080p60 is there ${opening.toFixed(1)} s after opening; by itself ${speed.toFixed(1)} times as fast as it plays; yardstick ${stick.toFixed(1)} s\n`,
  )
  return [
    { name: 'preview-copies, opening', seconds: opening, referenceSeconds: stick, ...opened },
    { name: 'preview-copies, by themselves', seconds: alone, referenceSeconds: stick, speed, ...(await memory.peak()) },
  ]
}
