import { describe, expect, it } from 'vitest'
import { seeded } from '../../../tests/support/seeded'
import { SIGNATURE_HEIGHT, SIGNATURE_WIDTH, signatureOf, type FrameSignature } from './frameSignature'
import { isSceneChange } from './sceneChange'

/** Blocks of chance brightness, with a camera over them at the lower right where there is one. */
function picture(seed: number, camera: { seed: number; stirs: number } | null): FrameSignature {
  const [around, inside] = [blocks(seed, 9), blocks(camera?.seed ?? 0, 3)]
  const stirs = seeded(seed + 1000)
  return signatureOf(
    Uint8ClampedArray.from({ length: SIGNATURE_WIDTH * SIGNATURE_HEIGHT * 4 }, (_, i) => {
      const [x, y] = [(i >> 2) % SIGNATURE_WIDTH, Math.floor((i >> 2) / SIGNATURE_WIDTH)]
      const isCamera = camera !== null && x >= 46 && y >= 24
      const level = isCamera ? inside(x, y) + stirs.between(-camera.stirs, camera.stirs) : around(x, y)
      return (i & 3) === 3 ? 255 : Math.round(level)
    }),
  )
}

function blocks(seed: number, size: number): (x: number, y: number) => number {
  const random = seeded(seed)
  const levels = Array.from({ length: 1000 }, () => random.between(20, 235))
  const [left, top] = [random.integer(0, size - 1), random.integer(0, size - 1)]
  return (x, y) => levels[Math.floor((x + left) / size) + 40 * Math.floor((y + top) / size)] ?? 0
}

/** A landscape under a sky, with the waves of chance hills. */
function hills(seed: number): FrameSignature {
  const random = seeded(seed)
  const [long, high, dark] = [random.between(3, 9), random.between(3, 8), random.between(20, 90)]
  return signatureOf(
    Uint8ClampedArray.from({ length: SIGNATURE_WIDTH * SIGNATURE_HEIGHT * 4 }, (_, i) => {
      const [x, y] = [(i >> 2) % SIGNATURE_WIDTH, Math.floor((i >> 2) / SIGNATURE_WIDTH)]
      const level = y > 20 + high * Math.sin(x / long) ? dark : 230 - 3 * y
      return (i & 3) === 3 ? 255 : Math.round(level)
    }),
  )
}

describe('a scene change', () => {
  it('leaves nothing of what was there; where a camera goes on beside a game that cuts, it is none', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const before = picture(seed, { seed: 7, stirs: 2 })
      expect(isSceneChange(before, picture(seed + 100, { seed: 7, stirs: 2 })), `seed ${seed}`).toBe(false)
      expect(isSceneChange(before, hills(seed)), `seed ${seed}`).toBe(true)
    }
  })

  it('is one too where both pictures have the same plain ground', () => {
    const slide = (left: number) =>
      signatureOf(
        Uint8ClampedArray.from({ length: SIGNATURE_WIDTH * SIGNATURE_HEIGHT * 4 }, (_, i) => {
          const [x, y] = [(i >> 2) % SIGNATURE_WIDTH, Math.floor((i >> 2) / SIGNATURE_WIDTH)]
          return x >= left && x < left + 20 && y >= 6 && y < 28 && (i & 3) < 3 ? 220 : 30
        }),
      )
    expect(isSceneChange(slide(4), slide(40))).toBe(true)
  })
})
