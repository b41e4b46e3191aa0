import { describe, expect, it } from 'vitest'
import { keepsForLater, mostEncoding, TURN_FRAMES } from './encoderTurns'

describe('turns of encoders', () => {
  it('leave one of the browser’s threads to decoding', () => {
    expect([1, 2, 4, 8].map(mostEncoding)).toEqual([2, 2, 2, 6])
  })

  it('let as many work at a time as may, and every file as often as every other', () => {
    for (const [files, most] of [
      [3, 2],
      [4, 2],
      [4, 3],
    ] as const) {
      const worked = Array.from({ length: files }, () => 0)
      for (let n = 0; n < files * TURN_FRAMES; n++) {
        const working = worked.map((_, file) => file).filter((file) => !keepsForLater(file, files, n, most))
        expect(working).toHaveLength(most)
        for (const file of working) worked[file] = (worked[file] ?? 0) + 1
      }
      expect(new Set(worked)).toEqual(new Set([most * TURN_FRAMES]))
    }
  })

  it('never keep anything where there are no more files than may be coded at a time', () => {
    for (let n = 0; n < 40; n++)
      for (const files of [1, 2])
        for (let file = 0; file < files; file++) expect(keepsForLater(file, files, n, 2)).toBe(false)
  })

  it('keep no more than the turns of the others are long', () => {
    let [kept, worst] = [0, 0]
    for (let n = 0; n < 100; n++) {
      kept = keepsForLater(0, 4, n, 2) ? kept + 1 : 0
      worst = Math.max(worst, kept)
    }
    expect(worst).toBe(2 * TURN_FRAMES)
  })
})
