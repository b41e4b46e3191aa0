// Scenes as recorders have them, and several recordings of each: other content, another day, another size and coding.
// What belongs to the scene stays where it is.
import { mkdirSync } from 'node:fs'
import { makeFootage } from './faceFootage.mjs'
import { seeded } from './scenes.mjs'

export const GAMES = ['busy', 'calm', 'night', 'resting']

/** Of every six scenes one is a call and one slides; the others are games with a camera and what belongs to them. */
export function sceneOf(n, random) {
  const room = random.integer(1, 1000)
  if (n % 6 === 4) {
    const people = random.pick([2, 3, 4])
    const gap = random.pick([8, 16, 40])
    const [columns, rows] = people === 2 ? [2, 1] : [2, 2]
    const width = Math.round((1920 - gap * (columns + 1)) / columns)
    const height = Math.min(Math.round((width * 9) / 16), Math.round((1080 - gap * (rows + 1)) / rows))
    const top = Math.round((1080 - rows * height - (rows - 1) * gap) / 2)
    const tiles = Array.from({ length: people }, (_, k) => ({
      x: k === 2 && people === 3 ? Math.round((1920 - width) / 2) : gap + (k % columns) * (width + gap),
      y: top + Math.floor(k / columns) * (height + gap),
      width,
      height,
    }))
    return { room, game: 'plain', tiles }
  }
  const width = 2 * random.integer(130, 260)
  const height = Math.round(width * random.pick([9 / 16, 3 / 4, 0.66]))
  const margin = random.pick([0, 20, 48])
  const [left, top] = [random.next() < 0.5, random.next() < 0.5]
  const camera = {
    x: left ? margin : 1920 - width - margin,
    y: top ? margin : 1080 - height - margin,
    width,
    height,
    border: random.pick([0, 4, 8, 'glow']),
    virtual: random.next() < 0.2,
  }
  if (n % 6 === 5) return { room, game: 'slides', slides: { x: 0, y: 0, width: 1920, height: 1080 }, camera }
  const list = random.next() < 0.5 && {
    x: left ? 1920 - 420 - margin : margin,
    y: random.integer(20, 90),
    width: 380,
    height: 220,
  }
  const chat = random.next() < 0.4 && {
    x: left ? 1920 - 400 - margin : margin,
    y: 380,
    width: random.integer(340, 440),
    height: random.integer(400, 560),
  }
  return { room, game: random.pick(GAMES), camera, ...(list && { list }), ...(chat && { chat }) }
}

/** Draws and codes `takes` recordings of each of `count` scenes; the first of each is what its setup is kept from. */
export async function makeSceneFootage(page, folder, { count, takes, seed }) {
  mkdirSync(folder, { recursive: true })
  const random = seeded(seed)
  for (let n = 0; n < count; n++) {
    const scene = sceneOf(n, random)
    for (let take = 0; take < takes; take++) {
      const content = random.integer(1, 1000)
      const make = {
        ...scene,
        // Every third recording is of another game.
        game: take % 3 === 2 && GAMES.includes(scene.game) ? random.pick(GAMES) : scene.game,
        dusk: random.pick([0, 0, 0.25, 0.45]),
        height: random.pick([720, 720, 1080]),
        crf: random.pick([20, 26, 33]),
      }
      await makeFootage(page, folder, `scene-${String(n).padStart(2, '0')}-${take}`, make, content, {
        scene: `scene ${n}`,
      })
    }
  }
}
