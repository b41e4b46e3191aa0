import { expect, it } from 'vitest'
import { chosenBackEnd } from './backEnd'

it('the quicker back end draws, planes where they are about as quick; what a person says goes before that, but for what cannot run here', () => {
  const measured = (canvasMs: number, planesMs: number | null) => ({ canvasMs, planesMs, agent: 'a' })
  expect(chosenBackEnd('measured', measured(15, 6))).toBe('planes')
  expect(chosenBackEnd('measured', measured(6, 6.4))).toBe('planes')
  expect(chosenBackEnd('measured', measured(2, 6))).toBe('canvas')
  expect(chosenBackEnd('canvas', measured(15, 6))).toBe('canvas')
  expect(chosenBackEnd('planes', measured(2, 6))).toBe('planes')
  for (const wish of ['measured', 'planes', 'canvas'] as const) expect(chosenBackEnd(wish, measured(15, null))).toBe('canvas')
})
