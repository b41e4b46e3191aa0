import { expect, it } from 'vitest'
import { readContinuous, readSingle } from './sphinxOutput'

it('reads the words of either command, without silence and noise', () => {
  const continuous = [
    'good morning',
    '<s> 0.000 0.200 0.997802',
    'good(2) 0.210 0.340 0.166709',
    'morning 0.350 0.710 1.000200',
    '[SPEECH] 3.130 3.460 0.818057',
    "it's 3.470 3.810 0.708901",
    '</s> 4.000 4.200 1.0',
    '',
  ]
  expect(readContinuous(continuous.join('\n'))).toEqual([
    { text: 'good', from: 0.21, to: 0.34, confidence: 0.166709 },
    { text: 'morning', from: 0.35, to: 0.71, confidence: 1 },
    { text: "it's", from: 3.47, to: 3.81, confidence: 0.708901 },
  ])
  const w = [
    { b: 0, d: 0.2, p: 1, t: '<sil>' },
    { b: 0.2, d: 0.25, p: 0.9, t: 'go(3)' },
  ]
  expect(readSingle(`INFO\n${JSON.stringify({ b: 0, d: 1, p: 1, t: 'go', w })}\n`)).toEqual([
    { text: 'go', from: 0.2, to: 0.45, confidence: 0.9 },
  ])
  expect(readContinuous('')).toEqual([])
})
