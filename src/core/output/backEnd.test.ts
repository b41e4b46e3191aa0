import { expect, it } from 'vitest'
import { chosenBackEnd } from './backEnd'

it('the quickest back end draws, the GPU or planes where they are about as quick; what a person says goes before that, but for what cannot run here', () => {
  const measured = (canvasMs: number, planesMs: number | null, gpuMs: number | null = null) => ({
    canvasMs,
    planesMs,
    gpuMs,
  })
  expect(chosenBackEnd('measured', measured(15, 6))).toBe('planes')
  expect(chosenBackEnd('measured', measured(6, 6.4))).toBe('planes')
  expect(chosenBackEnd('measured', measured(2, 6))).toBe('canvas')
  expect(chosenBackEnd('measured', measured(15, 6, 2))).toBe('gpu')
  expect(chosenBackEnd('measured', measured(15, 6, 6.5))).toBe('gpu')
  expect(chosenBackEnd('measured', measured(15, 6, 9))).toBe('planes')
  expect(chosenBackEnd('measured', measured(15, null, 9))).toBe('gpu')
  expect(chosenBackEnd('canvas', measured(15, 6, 2))).toBe('canvas')
  expect(chosenBackEnd('planes', measured(2, 6, 2))).toBe('planes')
  // One that does a GPU's work on the processor is not measured, but may be asked for.
  expect(chosenBackEnd('gpu', measured(2, 6))).toBe('gpu')
  for (const wish of ['measured', 'planes', 'canvas'] as const)
    expect(chosenBackEnd(wish, measured(15, null))).toBe('canvas')
})
