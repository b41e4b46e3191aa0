import { run } from './ffmpeg'

/**
 * Frames of a numbered recording carry their number in twelve squares, black for 0 and white for 1: four columns,
 * three rows, the lowest bit first.
 */
const COLUMNS = 4
const ROWS = 3

/** ffmpeg's filters that draw a frame's number over a picture of `width` × `height`. */
export function numberFilter(width: number, height: number): string {
  const boxes = Array.from({ length: COLUMNS * ROWS }, (_, bit) => {
    const place = `x=${(bit % COLUMNS) * (width / COLUMNS)}:y=${Math.floor(bit / COLUMNS) * (height / ROWS)}:w=${width / COLUMNS}:h=${height / ROWS}`
    return `drawbox=${place}:c=white:t=fill:enable='gte(mod(n,${2 ** (bit + 1)}),${2 ** bit})'`
  })
  return boxes.join(',')
}

/**
 * The number that each frame of a file shows in its upper `width` × `height` px; NaN where a square is neither black
 * nor white.
 */
export function numbersOf(file: string, width: number, height: number): number[] {
  const raw = run('ffmpeg', [
    '-v',
    'error',
    '-i',
    file,
    '-vf',
    `crop=${width}:${height}:0:0,scale=${COLUMNS * 3}:${ROWS * 3}:flags=area,format=gray`,
    '-fps_mode',
    'passthrough',
    '-f',
    'rawvideo',
    '-',
  ])
  const size = COLUMNS * ROWS * 9
  return Array.from({ length: Math.floor(raw.length / size) }, (_, n) => {
    let value = 0
    for (let bit = 0; bit < COLUMNS * ROWS; bit++) {
      // The middle of each square, away from its edges.
      const luma = raw[n * size + (Math.floor(bit / COLUMNS) * 3 + 1) * COLUMNS * 3 + (bit % COLUMNS) * 3 + 1] ?? 0
      if (luma > 90 && luma < 165) return NaN
      if (luma >= 165) value += 2 ** bit
    }
    return value
  })
}
