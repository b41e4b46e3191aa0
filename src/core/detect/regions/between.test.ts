import { expect, it } from 'vitest'
import { facesBetween, goesOn } from './between'

const face = (x: number) => ({ x, y: 0.2, width: 0.1, height: 0.2 })
const grey = (level: number) => new Uint8Array(64).fill(level)

it('the same goes on where everybody has stayed, whatever the order they were found in', () => {
  expect(goesOn({ faces: [face(0.1)], picture: grey(0) }, { faces: [face(0.14)], picture: grey(15) })).toBe(true)
  // Somebody else in the same place of another scene.
  expect(goesOn({ faces: [face(0.1)], picture: grey(0) }, { faces: [face(0.14)], picture: grey(90) })).toBe(false)
  expect(goesOn({ faces: [face(0.1)], picture: grey(0) }, { faces: [face(0.18)], picture: grey(0) })).toBe(false)
  expect(goesOn({ faces: [face(0.1)], picture: grey(0) }, { faces: [], picture: grey(0) })).toBe(false)
  const two = { faces: [face(0.1), face(0.6)], picture: grey(0) }
  expect(goesOn(two, { faces: [face(0.61), face(0.11)], picture: grey(0) })).toBe(true)
})

it('where nobody was, nobody came as long as it looks the same', () => {
  expect(goesOn({ faces: [], picture: grey(40) }, { faces: [], picture: grey(43) })).toBe(true)
  expect(goesOn({ faces: [], picture: grey(40) }, { faces: [], picture: grey(60) })).toBe(false)
})

it('faces between are on the way from one place to the other', () => {
  const [between] = facesBetween([face(0.1)], [face(0.14)], 0.25)
  expect(between?.x).toBeCloseTo(0.11, 10)
  expect(facesBetween([face(0.1), face(0.6)], [face(0.62), face(0.1)], 0.5).map((f) => f.x)).toEqual([0.1, 0.61])
})
