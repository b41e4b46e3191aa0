import { expect, it } from 'vitest'
import { setText } from '@/core/words/setText'
import { PLAIN_TEXT } from '@/core/model/textStyle'
import { faultsOf } from '../quality/arrangements.mjs'

const SIZE = { width: 1080, height: 1920 }
const FRAME = { width: 1080, height: 1920 }
const WHOLE = { x: 0, y: 0, ...SIZE }
const HEAD = { x: 340, y: 400, width: 400, height: 500 }
const SCENE = { frame: FRAME, regions: [{ role: 'face', bounds: WHOLE, keep: null, faces: [HEAD] }] }

const picture = (crop = WHOLE, dest = WHOLE) => ({
  kind: 'picture',
  crop,
  dest,
  orientation: { turn: 0, flip: false },
  outline: null,
})
const title = (y: number) => ({
  kind: 'text',
  text: 'Last gate, no lift',
  style: PLAIN_TEXT,
  area: { x: 90, y, width: 900, height: 300 },
})
const faults = (...steps: object[]) => faultsOf({ size: SIZE, steps }, SCENE, setText)

it('the score of arrangements tells words on a face, a cut head, and a head that is there twice', () => {
  expect(faults(picture(), title(1500))).toEqual([])
  expect(faults(picture(), title(500))).toEqual(['words on a face'])
  const half = { x: 0, y: 0, width: 1080, height: 960 }
  expect(faults(picture({ x: 0, y: 600, width: 1080, height: 960 }, half))).toEqual(['cuts a face of face'])
  const twice = faults(
    picture({ x: 0, y: 300, width: 1080, height: 960 }, half),
    picture({ x: 0, y: 300, width: 1080, height: 960 }, { ...half, y: 960 }),
  )
  expect(twice).toEqual(['shows a face of face twice'])
  expect(faults(picture(), title(1500), { kind: 'level', rect: { x: 400, y: 600, width: 200, height: 60 } })).toEqual([
    'the sound figure on a face',
  ])
})
