import { firstRecordingOf, type Edit } from '../model/edit'
import type { Outlet } from '../model/outlet'
import { recordedRate } from '../output/renderSettings'
import type { SpeechOf } from '../sound/ducking'
import type { Loudness } from '../sound/loudness'
import { framesPerSecond } from '../time/frameRate'
import { timeMapOf, type TimeMap } from '../time/timeMap'
import type { Measure } from '../words/setText'
import { worstFirst, type Finding, type FindingDraft } from './finding'
import { bareFindings, crowdedFindings, handleFindings, missingFindings } from './layoutFindings'
import { controlFindings, limitFindings } from './outletFindings'
import { pictureFindings } from './pictureFindings'
import { presenceFindings, sliverFindings, type RegionMeasurements } from './regionFindings'
import { withRemedies, type Scope, type TryRemedy } from './remedies'
import { soundFindings } from './soundFindings'
import { contrastFindings, fitFindings, glyphFindings, readingFindings } from './wordFindings'

/** What is known besides the edit. */
export interface Measurements extends RegionMeasurements {
  /** Where the files are headed; without it nothing is said about limits and controls. */
  outlet: Outlet | null
  /** How loud it is, once it has been listened to. */
  loudness: Loudness | null
  /** Where somebody is heard speaking, for where it could end. */
  speech: SpeechOf
  /** Files that are not there, by id. */
  missing: ReadonlySet<string>
  /** Widths of text, when its fonts are there. */
  measure: Measure | null
  /** Letters of its words that no font has. */
  missingGlyphs: ReadonlySet<string>
}

/** What is known before its words are looked at in their fonts. */
export type MeasurementsBesideFonts = Omit<Measurements, 'measure' | 'missingGlyphs'>

type MeasurementsBesideSound = Omit<Measurements, 'loudness'>

export const NOTHING_LOOKED_AT: MeasurementsBesideFonts = {
  outlet: null,
  loudness: null,
  speech: new Map(),
  missing: new Set(),
  edges: new Map(),
  presence: new Map(),
}

export const NOTHING_MEASURED: Measurements = { ...NOTHING_LOOKED_AT, measure: null, missingGlyphs: new Set() }

/**
 * Everything that people find out after they have posted, worst first, each with the remedy that is seen to work.
 * Pure; whoever calls keeps what it gives until the edit changes.
 */
export function findingsOf(edit: Edit, { loudness, ...known }: Measurements, tryRemedy: TryRemedy): Finding[] {
  return withHeard(findingsBesideSound(edit, known, tryRemedy), edit, loudness, known.outlet)
}

/**
 * What was found beside its sound, and what is heard of it besides, worst first. Sound is measured again at its own
 * pace: what is seen need not be looked over for it.
 */
export function withHeard(
  findings: readonly Finding[],
  edit: Edit,
  loudness: Loudness | null,
  outlet: Outlet | null,
): Finding[] {
  // What remedies of loudness do cannot be seen: the first is taken.
  const heard = loudness
    ? soundFindings(edit, timeMapOf(edit.highlight), loudness, outlet).map(({ remedies, ...finding }): Finding => ({
        ...finding,
        remedy: remedies[0] ?? null,
      }))
    : []
  return worstFirst([...findings, ...heard])
}

/** All of them but those of loudness and peaks. */
function findingsBesideSound(edit: Edit, known: MeasurementsBesideSound, tryRemedy: TryRemedy): Finding[] {
  const map = timeMapOf(edit.highlight)
  const { shapes } = edit.highlight
  const looked = [
    ...seenFindings(edit, known, WHOLE),
    ...rateFindings(edit, map),
    ...shapes.flatMap((shape) => limitFindings(edit, shape, map, known)),
    ...missingFindings(edit, map, known.missing),
    ...glyphFindings(edit, map, known.missingGlyphs),
  ]
  const sizeOf = ({ passageId, shapeId }: Scope) =>
    (passageId === null ? map.passages.length : 1) * (shapeId === null ? shapes.length : 1)
  return worstFirst(
    withRemedies(edit, worstFirst(looked), tryRemedy, (changed, scope) => seenFindings(changed, known, scope), sizeOf),
  )
}

const WHOLE: Scope = { passageId: null, layoutId: null, shapeId: null }

/** What can be seen from the edit as it stands, in a part of it. */
function seenFindings(
  edit: Edit,
  known: MeasurementsBesideSound,
  { passageId, layoutId, shapeId }: Scope,
): FindingDraft[] {
  const map = timeMapOf(edit.highlight)
  const shapes = edit.highlight.shapes.filter((s) => shapeId === null || s.id === shapeId)
  const passages = map.passages.filter(
    ({ passage }) =>
      (passageId === null || passage.id === passageId) && (layoutId === null || passage.layoutId === layoutId),
  )
  const { outlet, measure } = known
  const perShape = shapes.flatMap((shape) => [
    ...passages.flatMap((placed) => [
      ...pictureFindings(edit, shape, placed),
      ...sliverFindings(edit, shape, placed, known),
      ...bareFindings(edit, shape, placed),
      ...crowdedFindings(edit, shape, placed),
      ...(outlet ? controlFindings(edit, shape, placed, outlet, measure) : []),
    ]),
    ...(measure ? fitFindings(edit, map, shape, measure) : []),
  ])
  return [
    ...perShape,
    ...passages.flatMap((placed) => presenceFindings(edit, placed, known)),
    ...handleFindings(edit, map),
    ...readingFindings(edit, map),
    ...contrastFindings(edit, map),
  ]
}

/** Recordings whose frames do not fall onto the output's: some are shown longer than others. */
function rateFindings({ highlight, recordings }: Edit, map: TimeMap): FindingDraft[] {
  const first = firstRecordingOf({ highlight, recordings })
  const output = highlight.output.frameRate ?? (first && recordedRate(first))
  if (!output) return []
  return map.passages.flatMap(({ passage, startMicros, endMicros }): FindingDraft[] => {
    const recorded = recordings.find((r) => r.id === passage.recordingId)?.video.frameRate
    if (!recorded || isWholeMultiple(framesPerSecond(recorded), framesPerSecond(output))) return []
    const own =
      highlight.output.frameRate !== null &&
      first &&
      isWholeMultiple(framesPerSecond(recorded), framesPerSecond(recordedRate(first)))
    return [
      {
        key: `rate-mismatch ${passage.id}`,
        severity: 'note',
        fault: { kind: 'rate-mismatch', recorded, output },
        shapeId: null,
        passageId: passage.id,
        panelId: null,
        fromMicros: startMicros,
        toMicros: endMicros,
        rect: null,
        remedies: own ? [{ kind: 'own-rate' }] : [],
      },
    ]
  })
}

const isWholeMultiple = (recorded: number, output: number) => {
  const times = recorded / output
  return times > 0.99 && Math.abs(times - Math.round(times)) < 0.002 * times
}
