import type { Edit } from '../model/edit'
import type { Outlet } from '../model/outlet'
import { recordedRate } from '../output/renderSettings'
import { framesPerSecond } from '../time/frameRate'
import { timeMapOf, type TimeMap } from '../time/timeMap'
import type { Measure } from '../words/setText'
import { worstFirst, type Finding } from './finding'
import { controlFindings, limitFindings } from './outletFindings'
import { pictureFindings } from './pictureFindings'
import type { Loudness } from '../sound/loudness'
import { soundFindings } from './soundFindings'
import { fitFindings, readingFindings } from './wordFindings'

/** What is known besides the edit. */
export interface Known {
  /** Where the files are headed; without it nothing is said about limits and controls. */
  outlet: Outlet | null
  /** How loud it is, once it has been listened to. */
  loudness: Loudness | null
  /** Widths of text, when its fonts are there. */
  measure: Measure | null
}

/** Everything that people find out after they have posted, worst first. Pure; whoever calls keeps what it gives until the edit changes. */
export function findingsOf(edit: Edit, { outlet, measure, loudness }: Known): Finding[] {
  const map = timeMapOf(edit.highlight)
  const { shapes } = edit.highlight
  const perShape = shapes.flatMap((shape) => [
    ...map.passages.flatMap((placed) => [...pictureFindings(edit, shape, placed), ...(outlet ? controlFindings(edit, shape, placed, outlet) : [])]),
    ...(outlet ? limitFindings(edit, shape, map, outlet) : []),
    ...(measure ? fitFindings(edit, map, shape, measure) : []),
  ])
  return worstFirst([...perShape, ...rateFindings(edit, map), ...readingFindings(edit, map), ...(loudness ? soundFindings(edit, map, loudness) : [])])
}

/** Recordings whose frames do not fall onto the output's: some are shown longer than others. */
function rateFindings({ highlight, recordings }: Edit, map: TimeMap): Finding[] {
  const first = recordings.find((r) => r.id === highlight.passages[0]?.recordingId)
  const output = highlight.output.frameRate ?? (first && recordedRate(first))
  if (!output) return []
  return map.passages.flatMap(({ passage, startMicros, endMicros }): Finding[] => {
    const recorded = recordings.find((r) => r.id === passage.recordingId)?.video.frameRate
    if (!recorded || isWholeMultiple(framesPerSecond(recorded), framesPerSecond(output))) return []
    return [{ key: `rate-mismatch ${passage.id}`, severity: 'note', fault: { kind: 'rate-mismatch', recorded, output }, shapeId: null, passageId: passage.id, panelId: null, fromMicros: startMicros, toMicros: endMicros, rect: null, remedy: highlight.output.frameRate !== null && first && isWholeMultiple(framesPerSecond(recorded), framesPerSecond(recordedRate(first))) ? { kind: 'own-rate' } : null }]
  })
}

const isWholeMultiple = (recorded: number, output: number) => {
  const times = recorded / output
  return times > 0.99 && Math.abs(times - Math.round(times)) < 0.002 * times
}
