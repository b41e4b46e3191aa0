import { keptStretches, passageAt, recordingMicrosAt, type PlacedPassage, type TimeMap } from '@/core/time/timeMap'
import type { PassageId } from '@/core/model/ids'
import type { Strike } from '@/core/model/passage'
import type { Micros } from '@/core/time/micros'

/** Heights in CSS px. */
export const ROW_HEIGHT = 56
export const HEADER_HEIGHT = 32
export const HANDLE_HEIGHT = 18
export const STRIKE_HEIGHT = 20
export const JOIN_HEIGHT = 26

/**
 * A passage whose recording is shown beyond its cut points, recording time: while one of its edges is being trimmed.
 */
export interface Opened {
  passageId: PassageId
  fromMicros: Micros
  toMicros: Micros
}

interface Placed {
  key: string
  top: number
  height: number
}

/** What the Sheet is made of, from top to bottom, without gaps. */
export type SheetItem = Placed &
  (
    | { kind: 'header'; placed: PlacedPassage }
    | { kind: 'row'; placed: PlacedPassage; recordingMicros: Micros; lengthMicros: Micros }
    | { kind: 'strike'; placed: PlacedPassage; strike: Strike }
    | { kind: 'foot'; placed: PlacedPassage }
    | { kind: 'join'; index: number }
  )

/** A piece of a recording drawn without a break: recording time, and where it lies. */
interface Stretch {
  placed: PlacedPassage
  inMicros: Micros
  outMicros: Micros
  top: number
  bottom: number
}

/** The Sheet's items with the way from time to place and back. `microsPerPixel` is output time. */
export interface SheetLayout {
  items: SheetItem[]
  height: number
  stretches: Stretch[]
  stretchesOf: Map<PassageId, Stretch[]>
  microsPerPixel: number
}

export function layOutSheet(map: TimeMap, rowMicros: Micros, opened: Opened | null): SheetLayout {
  const layout: SheetLayout = {
    items: [],
    height: 0,
    stretches: [],
    stretchesOf: new Map(),
    microsPerPixel: rowMicros / ROW_HEIGHT,
  }
  const add = (height: number) => {
    const top = layout.height
    layout.height += height
    return { top, height }
  }
  for (const placed of map.passages) {
    const { id } = placed.passage
    layout.items.push({ kind: 'header', key: `${id} header`, placed, ...add(HEADER_HEIGHT + HANDLE_HEIGHT) })
    addPassage(layout, placed, opened?.passageId === id ? opened : null, add)
    layout.items.push({ kind: 'foot', key: `${id} foot`, placed, ...add(HANDLE_HEIGHT) })
    if (placed.index < map.passages.length - 1)
      layout.items.push({ kind: 'join', key: `${id} join`, index: placed.index, ...add(JOIN_HEIGHT) })
  }
  return layout
}

function addPassage(
  layout: SheetLayout,
  placed: PlacedPassage,
  opened: Opened | null,
  add: (height: number) => { top: number; height: number },
): void {
  const { passage } = placed
  const from = Math.min(passage.inMicros, opened?.fromMicros ?? passage.inMicros)
  const to = Math.max(passage.outMicros, opened?.toMicros ?? passage.outMicros)
  const microsPerPixel = recordingPerPixel(layout, placed)
  const perRow = microsPerPixel * ROW_HEIGHT
  const own: Stretch[] = []
  let shown = from
  for (const { inMicros, outMicros } of keptStretches({ inMicros: from, outMicros: to, strikes: passage.strikes })) {
    addStrike(layout, placed, shown, inMicros, add)
    const top = layout.height
    const rows = Math.ceil((outMicros - inMicros) / perRow - 1e-9)
    for (let i = 0; i < rows; i++) {
      const recordingMicros = Math.round(inMicros + i * perRow)
      const lengthMicros = Math.min(Math.round(inMicros + (i + 1) * perRow), outMicros) - recordingMicros
      layout.items.push({
        kind: 'row',
        key: `${passage.id} ${recordingMicros}`,
        placed,
        recordingMicros,
        lengthMicros,
        ...add(lengthMicros / microsPerPixel),
      })
    }
    own.push({ placed, inMicros, outMicros, top, bottom: layout.height })
    shown = outMicros
  }
  addStrike(layout, placed, shown, to, add)
  layout.stretches.push(...own)
  layout.stretchesOf.set(passage.id, own)
}

function addStrike(
  layout: SheetLayout,
  placed: PlacedPassage,
  fromMicros: Micros,
  toMicros: Micros,
  add: (height: number) => { top: number; height: number },
): void {
  if (toMicros > fromMicros)
    layout.items.push({
      kind: 'strike',
      key: `${placed.passage.id} strike ${fromMicros}`,
      placed,
      strike: { fromMicros, toMicros },
      ...add(STRIKE_HEIGHT),
    })
}

/** Recording time that one px of a passage stands for. */
export function recordingPerPixel(
  { microsPerPixel }: SheetLayout,
  { passage }: Pick<PlacedPassage, 'passage'>,
): number {
  return (microsPerPixel * passage.speedPercent) / 100
}

/**
 * Where a moment of a passage's recording lies; what is struck out or not shown lies at the nearest edge of what is.
 */
export function topOfRecording(layout: SheetLayout, id: PassageId, t: Micros): number {
  const own = layout.stretchesOf.get(id) ?? []
  const stretch = own.find((s) => t < s.outMicros) ?? own.at(-1)
  if (!stretch) return 0
  const inside = Math.min(Math.max(t, stretch.inMicros), stretch.outMicros) - stretch.inMicros
  return stretch.top + inside / recordingPerPixel(layout, stretch.placed)
}

/** Where output time `t` lies; the end of the highlight at the last row's bottom. */
export function topOfOutput(layout: SheetLayout, map: TimeMap, t: Micros): number {
  const placed = passageAt(map, t)
  if (placed) return topOfRecording(layout, placed.passage.id, recordingMicrosAt(placed, t))
  const last = map.passages.at(-1)
  return last && t > 0
    ? topOfRecording(layout, last.passage.id, last.passage.outMicros)
    : (layout.stretches[0]?.top ?? 0)
}

/**
 * The output time at a height; between rows that of what comes next. What lies beyond cut points counts as the cut
 * point.
 */
export function outputAt(layout: SheetLayout, y: number): Micros {
  const stretch = layout.stretches.find((s) => y < s.bottom) ?? layout.stretches.at(-1)
  if (!stretch) return 0
  const { placed } = stretch
  const offset = Math.max(0, Math.min(y, stretch.bottom) - stretch.top)
  const t = Math.round(stretch.inMicros + offset * recordingPerPixel(layout, placed))
  const run = placed.runs.find((r) => t < r.outMicros) ?? placed.runs.at(-1)
  if (!run) return placed.startMicros
  const inside = Math.min(Math.max(t, run.inMicros), run.outMicros) - run.inMicros
  return Math.min(run.endMicros, run.startMicros + Math.round((inside * 100) / placed.passage.speedPercent))
}
