// Twenty setups, five new recordings of each: other content, another size, other coding. How many are recognised, and
// is any taken for another?
import { core } from './core.mjs'
import { coded } from './foundRegions.mjs'
import { recognisedInFiles } from './recognisedInFiles.mjs'
import { callScene, gameScene, seeded } from './scenes.mjs'

const SETUPS = 20
const RECORDINGS = 5
const BAR = 0.95
/** Setups that nobody has kept: none of them may be taken for one that was. */
const STRANGERS = 10
const SIZES = [
  { width: 1280, height: 720 },
  { width: 1920, height: 1080 },
]

/**
 * A setup is what stays: the place of the camera, its room and border, the displays, or the grid of a call. Content
 * comes with `take`.
 */
function setup(n, seed) {
  const random = seeded(seed * 31 + n)
  const own = seed + n * 1000
  if (n % 5 === 4) {
    const call = {
      people: random.pick([2, 3, 4, 6, 9]),
      gutter: random.pick([0, 8, 24]),
      background: random.pick([16, 32, 45]),
      names: random.next() < 0.5,
    }
    // A recorder scales the whole picture.
    const scaled = (px, size) => Math.round((px * size.height) / 1080)
    return (size, take) => callScene(own, size, { ...call, gutter: scaled(call.gutter, size), take })
  }
  const camera = {
    place: random.pick(['nw', 'ne', 'sw', 'se', 'e', 'w']),
    share: random.between(0.14, 0.33),
    border: random.pick([0, 3, 6]),
    inset: random.pick([0, 0.02, 0.05]),
    proportion: random.pick([9 / 16, 3 / 4, 0.66]),
  }
  return (size, take) =>
    gameScene(own, size, { ...camera, border: Math.round((camera.border * size.height) / 1080), take })
}

export async function recognisedSetups(
  page,
  { seed = Number(process.env.SEED ?? 20261125), log = process.env.VERBOSE, files } = {},
) {
  if (files) return recognisedInFiles(page, files, log)
  const { placesOf } = await core('detect/regions/places')
  const { proposeRegions } = await core('detect/regions/propose')
  const { structureOf } = await core('detect/regions/structure')
  const { FrameWatcher } = await core('detect/regions/frameWatcher')
  const { StillLines } = await core('detect/regions/lines')
  const { fingerprintOf, likeness, recognise } = await core('detect/regions/fingerprint')
  const look = (scene) => {
    const watcher = new FrameWatcher(scene)
    for (const luma of coded(scene, 12)) watcher.add(luma)
    const seen = watcher.seen()
    const lines = [new StillLines(seen.stillness, 'x'), new StillLines(seen.stillness, 'y')]
    const proposals = proposeRegions(structureOf(seen, ...lines), null)
    return fingerprintOf(seen.stillness, ...lines, placesOf(proposals, [], scene))
  }
  const random = seeded(seed)
  const setups = Array.from({ length: SETUPS }, (_, n) => setup(n, seed))
  const known = setups.map((make, n) => ({ id: n, fingerprint: look(make(SIZES[1], 0)) }))
  const tally = { right: 0, wrong: 0, offered: 0, none: 0 }
  for (const [n, make] of setups.entries())
    for (let take = 1; take <= RECORDINGS; take++) {
      const size = random.pick(SIZES)
      const seen = look(make(size, take))
      const found = recognise(seen, known)
      const right = found.kind !== 'none' && found.match.id === n
      if (found.kind === 'sure') tally[right ? 'right' : 'wrong']++
      else if (found.kind === 'unsure') tally.offered++
      else tally.none++
      if (log && !(found.kind === 'sure' && right))
        process.stderr.write(
          `setup ${n}, take ${take}, ${size.height}p: ${found.kind} ${found.match?.id} ${found.likeness?.toFixed(2)}; its own ${likeness(seen, known[n].fingerprint).toFixed(2)}, best other ${Math.max(...known.filter((k) => k.id !== n).map((k) => likeness(seen, k.fingerprint))).toFixed(2)}\n`,
        )
    }
  for (let n = 0; n < STRANGERS; n++) {
    const found = recognise(look(setup(n + 100, seed)(random.pick(SIZES), 1)), known)
    if (found.kind === 'sure') tally.wrong++
    if (log && found.kind !== 'none')
      process.stderr.write(`stranger ${n}: ${found.kind} ${found.match.id} ${found.likeness.toFixed(2)}\n`)
  }
  const all = SETUPS * RECORDINGS
  return [
    {
      figure: tally.right / all,
      unit: `of ${all} recognised and applied`,
      bar: BAR,
      met: tally.right / all >= BAR,
      detail: `${tally.offered} offered, ${tally.none} not recognised`,
    },
    { figure: tally.wrong, unit: 'taken for another setup', bar: 0, met: tally.wrong === 0 },
  ]
}
