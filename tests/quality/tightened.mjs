// Borders of 1 to 12 px, bright, dark and none, coded as a recorder would: does tightening take off exactly them?
import { core } from './core.mjs'
import { coded } from './foundRegions.mjs'
import { gameScene } from './scenes.mjs'

const SIZE = { width: 1920, height: 1080 }
const ROUNDS = 3

export async function tightened(
  _page,
  { seed = Number(process.env.SEED ?? 20261125), log = process.env.VERBOSE } = {},
) {
  const { FrameWatcher } = await core('detect/regions/frameWatcher')
  const { StillLines } = await core('detect/regions/lines')
  const { tighten } = await core('detect/regions/tighten')
  let right = 0
  let of = 0
  for (let border = 0; border <= 12; border++)
    for (let round = 0; round < ROUNDS; round++) {
      const scene = gameScene(seed + border * 10 + round, SIZE, {
        place: ['sw', 'ne', 'se'][round],
        share: 0.25,
        border,
      })
      const watcher = new FrameWatcher(SIZE)
      for (const luma of coded(scene, 12)) watcher.add(luma)
      const { stillness } = watcher.seen()
      const [{ rect }] = scene.truth
      const drawn = {
        x: rect.x - border,
        y: rect.y - border,
        width: rect.width + 2 * border,
        height: rect.height + 2 * border,
      }
      const tight = tighten(drawn, stillness, new StillLines(stillness, 'x'), new StillLines(stillness, 'y'))
      const exact = ['x', 'y', 'width', 'height'].every((k) => tight[k] === rect[k])
      of++
      if (exact) right++
      else if (log)
        process.stderr.write(
          `border ${border}, round ${round}: wanted ${Object.values(rect).join(' ')}, got ${Object.values(tight).join(' ')}\n`,
        )
    }
  return [{ figure: right / of, unit: `of ${of} borders of 0 to 12 px taken off exactly`, bar: 1, met: right === of }]
}
