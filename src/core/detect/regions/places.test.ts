import { expect, it } from 'vitest'
import { placesAlike, placesOf, type ScenePlace } from './places'
import type { RegionProposal } from './proposal'

const FRAME = { width: 1920, height: 1080 }
const CAMERA = { x: 40, y: 700, width: 480, height: 320 }
const HEAD = { x: 220, y: 760, width: 110, height: 140 }
const LIST = { x: 1500, y: 60, width: 380, height: 220 }

const found = (kind: RegionProposal['found'], rect: RegionProposal['rect']): RegionProposal => ({
  found: kind,
  role: 'face',
  rect,
  confidence: 1,
})
const person = (head: typeof HEAD) => ({ head, seen: 1, score: 1 })
const scene = (proposals: RegionProposal[], heads: (typeof HEAD)[] = []): ScenePlace[] =>
  placesOf(proposals, heads.map(person), FRAME)

const camera = scene([found('inset', CAMERA)], [HEAD])
const moved = (by: number) => scene([found('inset', { ...CAMERA, x: CAMERA.x + by })], [HEAD])

it('are of what belongs to the scene, not of its content; in any size', () => {
  const all = [found('inset', CAMERA), found('text', LIST), found('content', { x: 0, y: 0, width: 900, height: 1080 })]
  expect(scene(all).map((p) => p.kind)).toEqual(['inset', 'text'])
  expect(scene([found('slides', { x: 0, y: 0, ...FRAME })])).toEqual([])
  const half = placesOf([found('inset', { x: 20, y: 350, width: 240, height: 160 })], [], { width: 960, height: 540 })
  expect(placesAlike(half, scene([found('inset', CAMERA)]))).toBe(1)
})

it('are the same a few pixels off, and others elsewhere', () => {
  expect(placesAlike(camera, moved(3))).toBe(1)
  expect(placesAlike(camera, moved(15))).toBeGreaterThan(0.5)
  expect(placesAlike(camera, moved(15))).toBeLessThan(1)
  expect(placesAlike(camera, moved(80))).toBe(0)
  const oneEdge = scene([found('inset', { ...CAMERA, x: CAMERA.x - 18, width: CAMERA.width + 18 })], [HEAD])
  expect(placesAlike(camera, oneEdge), 'one edge was taken for a line beside it').toBe(1)
  expect(placesAlike([], [])).toBeNull()
  expect(placesAlike(camera, [])).toBeNull()
})

it('count a list that was not found this time for little, and one more picture for much', () => {
  const withList = scene([found('inset', CAMERA), found('display', LIST)], [HEAD])
  expect(placesAlike(camera, withList)).toBeGreaterThan(0.85)
  const withGuest = scene([found('inset', CAMERA), found('inset', { ...CAMERA, x: 1400 })], [HEAD])
  expect(placesAlike(camera, withGuest)).toBeCloseTo(0.5, 5)
})

it('take the same head for its camera where no edges were seen, and no other head', () => {
  const bare = scene([], [HEAD])
  expect(placesAlike(camera, bare)).toBe(0.75)
  expect(placesAlike(bare, camera)).toBe(0.75)
  expect(placesAlike(camera, scene([], [{ ...HEAD, x: HEAD.x + 200 }]))).toBe(0)
  expect(placesAlike(camera, scene([], [{ ...HEAD, height: 300, y: 700 }]))).toBe(0)
})
