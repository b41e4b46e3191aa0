import { wordAreasIn } from '../compose/arrangementIn'
import { placePanels } from '../compose/placePanels'
import { showingOf } from '../compose/showing'
import { styleIn, titlesAt } from '../compose/wordSteps'
import { areaOf, intersection, scaleRect, type Rect } from '../geometry/rect'
import { needsOf } from '../layout/needs'
import { recordingOf, setupOf, type Edit } from '../model/edit'
import { showsSomebody, toldApart } from '../model/region'
import type { TitleId } from '../model/ids'
import type { Outlet } from '../model/outlet'
import type { Shape } from '../model/shape'
import type { TextStyle } from '../model/textStyle'
import { AUDIO_BITRATE, bitrateFor, settingsFor } from '../output/renderSettings'
import { speechInOutput, type SpeechOf } from '../sound/ducking'
import { MICROS_PER_SECOND, toSeconds, type Micros } from '../time/micros'
import type { PlacedPassage, TimeMap } from '../time/timeMap'
import { setText, type Measure } from '../words/setText'
import { swappedBands } from './arrangements'
import type { FindingDraft, Remedy } from './finding'

/** Less under a feed's own things is not in anybody's way. */
const MIN_UNDER = 0.05
const MUCH_UNDER = 0.25

const isFor = (outlet: Outlet, { width, height }: Shape) =>
  Math.abs(outlet.shape.width / outlet.shape.height - width / height) < 0.01

/**
 * What is wrong with a passage in a shape by what an outlet lays over it: faces, titles and captions under its own
 * things. Words lie where `measure` says, else all over their area.
 */
export function controlFindings(
  edit: Edit,
  shape: Shape,
  placed: PlacedPassage,
  outlet: Outlet,
  measure: Measure | null,
): FindingDraft[] {
  if (!isFor(outlet, shape)) return []
  const { passage, startMicros, endMicros } = placed
  const zones = outlet.zones.map((z) => ({ name: z.name, rect: scaleRect(z.rect, shape.width, shape.height) }))
  return thingsIn(edit, shape, placed, measure).flatMap(({ what, rect, guessed, remedies }) =>
    zones.flatMap((zone): FindingDraft[] => {
      const shared = intersection(rect, zone.rect)
      const share = shared ? areaOf(shared) / areaOf(rect) : 0
      if (share < MIN_UNDER) return []
      return [
        {
          key: `under-controls ${shape.id} ${passage.id} ${what} ${zone.name}`,
          severity: share > MUCH_UNDER && !guessed ? 'warn' : 'note',
          fault: { kind: 'under-controls', what, zone: zone.name, share },
          shapeId: shape.id,
          passageId: passage.id,
          panelId: null,
          fromMicros: startMicros,
          toMicros: endMicros,
          rect: shared,
          remedies,
        },
      ]
    }),
  )
}

interface Thing {
  what: string
  /** Px of the canvas; `guessed`: where it mostly is. */
  rect: Rect
  guessed?: boolean | undefined
  remedies: Remedy[]
}

/** What matters in a shape while a passage is on, and what could be done about each. */
function thingsIn(
  edit: Edit,
  shape: Shape,
  { passage, startMicros, index }: PlacedPassage,
  measure: Measure | null,
): Thing[] {
  const { words } = edit.highlight
  const { titleArea, captionArea } = wordAreasIn(edit, passage, shape)
  const side = Math.min(shape.width, shape.height)
  const written = (what: string, text: string, style: TextStyle, area: Rect, titleId: TitleId | null): Thing => ({
    what,
    rect: (measure && setText(text, styleIn(style, area, shape), area, side, measure)?.extent) ?? area,
    remedies: (['top', 'middle', 'bottom'] as const)
      .filter((place) => place !== style.place)
      .map((place): Remedy => ({ kind: 'style', why: 'place', titleId, change: { place } })),
  })
  const [title] = titlesAt(words, startMicros, Number.MAX_SAFE_INTEGER)
  // The longest line takes up most.
  const longest = words.captions.shown ? wordsIn(edit, index).sort((a, b) => b.length - a.length)[0] : undefined
  return [
    ...placePanels(edit, shape, passage).flatMap((placed, _, all): Thing[] => {
      const { region, source } = placed
      if (!region || !showsSomebody(region.role)) return []
      const { video } = recordingOf(edit, source.recordingId)
      const head = needsOf(region).find(({ kind }) => kind === 'head')
      const showing = head && showingOf(scaleRect(head.rect, video.width, video.height), placed, all)
      const what = toldApart(setupOf(edit, source.setupId).regions, region)
      if (!showing) return []
      return [{ what, rect: showing.rect, guessed: head.guessed, remedies: swappedBands(edit, shape, passage) }]
    }),
    ...(title ? [written('title', title.text, title.style, titleArea, title.id)] : []),
    ...(longest !== undefined ? [written('captions', longest, words.captions.style, captionArea, null)] : []),
  ]
}

/** The captions of a passage that say anything. */
function wordsIn({ highlight: { words, passages } }: Edit, index: number): string[] {
  const passage = passages[index]
  return words.cues.flatMap((c) =>
    passage &&
    c.recordingId === passage.recordingId &&
    c.toMicros > passage.inMicros &&
    c.fromMicros < passage.outMicros &&
    c.text.trim() !== ''
      ? [c.text]
      : [],
  )
}

/** A picture of a feed's size with less than this is not worth sending. */
const MIN_PICTURE_BITRATE = 400_000

/** What is wrong with a highlight by an outlet's limits. */
export function limitFindings(
  edit: Edit,
  shape: Shape,
  map: TimeMap,
  { outlet, speech }: { outlet: Outlet | null; speech: SpeechOf },
): FindingDraft[] {
  if (!outlet || !isFor(outlet, shape)) return []
  const [first] = edit.highlight.passages
  const recording = edit.recordings.find((r) => r.id === first?.recordingId)
  const whole = { shapeId: shape.id, passageId: null, panelId: null, rect: null }
  const findings: FindingDraft[] = []
  const { longestMicros, largestBytes } = outlet
  if (longestMicros !== null && map.lengthMicros > longestMicros)
    findings.push({
      ...whole,
      key: `too-long ${shape.id}`,
      severity: 'stop',
      fault: { kind: 'too-long', overMicros: map.lengthMicros - longestMicros },
      fromMicros: longestMicros,
      toMicros: map.lengthMicros,
      remedies: [{ kind: 'end-at', atMicros: lastPause(map, speech, longestMicros) }],
    })
  if (recording && largestBytes !== null) {
    const { output } = edit.highlight
    const seconds = toSeconds(map.lengthMicros)
    const bytes = (quality: typeof output.quality) =>
      ((settingsFor({ ...output, quality }, edit, shape, recording, seconds).videoBitrate + AUDIO_BITRATE) * seconds) /
      8
    const tooMany = bytes(output.quality) - largestBytes
    const remedies: Remedy[] = [
      ...(output.quality !== 'small' && bytes('small') <= largestBytes ? [{ kind: 'smaller-file' as const }] : []),
      ...(bitrateFor(largestBytes, seconds) >= MIN_PICTURE_BITRATE
        ? [{ kind: 'limit-size' as const, mostBytes: largestBytes }]
        : []),
    ]
    if (tooMany > 0)
      findings.push({
        ...whole,
        key: `too-big ${shape.id}`,
        severity: 'stop',
        fault: { kind: 'too-big', overBytes: Math.round(tooMany) },
        fromMicros: 0,
        toMicros: map.lengthMicros,
        remedies,
      })
  }
  return findings
}

/** Nothing is cut off right at a word. */
const BEFORE_SPEECH = 60_000

/**
 * The last moment up to `limit` (output time) at which nobody is speaking; the limit itself where that would leave
 * less than half.
 */
function lastPause(map: TimeMap, speech: SpeechOf, limit: Micros): Micros {
  const spoken = speechInOutput(map, speech)
  let at = limit
  for (const { fromMicros, toMicros } of spoken.toReversed())
    if (fromMicros < at && toMicros > at) at = fromMicros - BEFORE_SPEECH
  return at >= limit / 2 && at >= MICROS_PER_SECOND ? at : limit
}
