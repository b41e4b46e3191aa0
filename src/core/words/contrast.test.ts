import { expect, test } from 'vitest'
import { blended, contrastRatio } from './contrast'

test('contrast by WCAG 2.2: known pairs, either way round', () => {
  expect(contrastRatio('#ffffff', '#000000')).toBeCloseTo(21, 5)
  expect(contrastRatio('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  expect(contrastRatio('#ffffff', '#777777')).toBeCloseTo(4.48, 2)
  expect(contrastRatio('#123456', '#123456')).toBe(1)
})

test('a colour that lets something through', () => {
  expect(blended('#000000', '#ffffff', 0.5)).toBe('#808080')
  expect(blended('#abcdef', '#000000', 1)).toBe('#abcdef')
})
