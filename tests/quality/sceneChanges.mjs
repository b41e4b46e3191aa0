// Recordings whose scenes change, by the interface: are all changes found, to two frames, and none where there is none?
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { codePieces } from './faceFootage.mjs'
import {
  changeFigures,
  filesIn,
  judgeChanges,
  openOnBench,
  sceneChangesSeen,
  withPlainChooser,
} from './foundInFiles.mjs'
import { GAMES, sceneOf } from './sceneFootage.mjs'
import { seeded } from './scenes.mjs'

const RATE = 15
const RECORDINGS = 12
const PIECES = 5

const DEMO = [
  'ridge-cup-stream',
  'open-day-call',
  'reading-thermals-webinar',
  'field-dawn',
  'field-dusk',
  'field-winch',
]

/** A camera that fills the frame, and a picture with nobody in it: what streams change to and from. */
const BESIDES = [{ game: 'plain', full: true }, { game: 'dials' }]

/**
 * Pieces of a recording, in order, each of another scene than the one before; now and then the game alone cuts, beside
 * the same camera.
 */
export function piecesOf(recording, random) {
  const pieces = []
  const pool = [
    ...Array.from({ length: 3 }, (_, n) => sceneOf(recording * 3 + n, random)),
    { ...random.pick(BESIDES), room: random.integer(1, 1000) },
  ]
  let scene = random.pick(pool)
  for (let n = 0; n < PIECES; n++) {
    pieces.push({
      make: scene,
      seed: random.integer(1, 1000),
      seconds: random.integer(2 * RATE, 6 * RATE) / RATE,
      isSame: false,
    })
    if (scene.camera && GAMES.includes(scene.game) && random.next() < 0.5)
      pieces.push({
        ...pieces.at(-1),
        make: { ...scene, game: random.pick(GAMES) },
        from: pieces.at(-1).seconds,
        isSame: true,
      })
    scene = random.pick(pool.filter((s) => s !== scene))
  }
  return pieces
}

export function changesIn(pieces) {
  const changes = []
  let at = 0
  for (const { seconds, isSame } of pieces) {
    if (at > 0 && !isSame) changes.push(at)
    at += seconds
  }
  return changes
}

export async function sceneChanges(
  page,
  { seed = Number(process.env.SEED ?? 20261201), log = process.env.VERBOSE, files } = {},
) {
  await withPlainChooser(page)
  const sums = { changes: 0, changesFound: 0, changesInvented: 0 }
  const judge = async (file, changes, frame) => {
    await openOnBench(page, file)
    const seen = await sceneChangesSeen(page)
    const verdict = judgeChanges(changes, seen, frame)
    for (const [key, value] of Object.entries(verdict)) sums[key] += value
    if (log) process.stderr.write(`${file}: ${JSON.stringify({ wanted: changes, seen, ...verdict })}\n`)
  }
  if (files) {
    for (const { file, truth } of filesIn(files)) if (truth?.sceneChanges) await judge(file, truth.sceneChanges, 1 / 30)
    return changeFigures(sums)
  }
  for (const name of DEMO) await judge(`public/demo/${name}.mp4`, [], 1 / 30)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-scenes-'))
  try {
    const random = seeded(seed)
    for (let n = 0; n < RECORDINGS; n++) {
      const pieces = piecesOf(n, random)
      const file = join(folder, `recording-${n}.mp4`)
      await codePieces(page, file, pieces, {
        rate: RATE,
        height: random.pick([720, 1080]),
        coding: [
          ...['-crf', String(random.pick([20, 26, 33])), '-g', String(random.pick([30, 60, 120]))],
          ...['-sc_threshold', String(random.pick([0, 40]))],
        ],
      })
      await judge(file, changesIn(pieces), 1 / RATE)
    }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
  return changeFigures(sums)
}
