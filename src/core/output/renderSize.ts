import { compose } from '../compose/compose'
import { footageOf } from '../compose/composition'
import { blowUp } from '../compose/panelCrop'
import type { Size } from '../geometry/rect'
import type { Edit } from '../model/edit'
import type { OutputSize } from '../model/outputChoice'
import type { Shape } from '../model/shape'
import { timeMapOf } from '../time/timeMap'

/** Encoders take even sizes, and none smaller than this. */
const MIN_SIDE = 64

/** The size in px of a file's picture: its shape's, scaled down as the choice says and never up; even. */
export function renderSize(edit: Edit, shape: Shape, size: OutputSize): Size {
  const factor = factorOf(edit, shape, size)
  const scaled = (length: number) => Math.max(MIN_SIDE, 2 * Math.round((length * factor) / 2))
  return factor === 1
    ? { width: shape.width, height: shape.height }
    : { width: scaled(shape.width), height: scaled(shape.height) }
}

/**
 * How far the sharpest picture of the highlight is blown up: below that size something would be lost. 1 where nothing
 * of a recording is shown.
 */
function leastBlowUp(edit: Edit, shape: Shape): number {
  const map = timeMapOf(edit.highlight)
  const found = map.passages.flatMap(({ runs }) => {
    const first = runs[0]
    const composition = first && compose(edit, map, shape, first.startMicros)
    return composition ? footageOf(composition).flatMap((step) => (step.kind === 'picture' ? [blowUp(step)] : [])) : []
  })
  return found.length === 0 ? 1 : Math.min(...found)
}

function factorOf(edit: Edit, shape: Shape, size: OutputSize): number {
  if (size === 'shape') return 1
  if (size === 'sharp') return 1 / Math.max(1, leastBlowUp(edit, shape))
  return Math.min(1, Number(size) / Math.min(shape.width, shape.height))
}
