import type { Rect, Size } from '../geometry/rect'
import type { Edit } from '../model/edit'
import type { Passage } from '../model/passage'
import type { Shape } from '../model/shape'
import type { TextStyle } from '../model/textStyle'
import type { TitleCard, Words } from '../model/words'
import type { Micros } from '../time/micros'
import { type TimeMap } from '../time/timeMap'
import { cuesAt, outputCues, type OutputCue } from '../words/outputCues'
import { blockFor, isLight } from '../words/contrast'
import { isCrowded, wordAreasIn } from './arrangementIn'
import type { TextStep } from './composition'
import { isOnAt } from './whenOn'

const FADE_MICROS = 200_000
const POP_MICROS = 220_000
/** Words that pop in begin at this share of their size; they never grow beyond it, or they would leave their area. */
const POP_FROM = 0.7

/** What is written over a frame at output time `t`, when `passage` is on: titles, then captions. */
export function wordSteps(edit: Edit, map: TimeMap, shape: Shape, passage: Passage, t: Micros): TextStep[] {
  const { words } = edit.highlight
  const titles = titlesAt(words, t, map.lengthMicros)
  const cues = words.captions.shown
    ? cuesAt(cuesOf(words, map), map.passages.find((p) => p.passage.id === passage.id)?.index ?? -1, t)
    : []
  if (titles.length === 0 && cues.length === 0) return []
  const { titleArea, captionArea } = wordAreasIn(edit, passage, shape)
  const steps = [...titleSteps(titles, titleArea, shape, t), ...captionSteps(words, cues, captionArea, shape, t)]
  // What has to lie on a face or on letters is read on a block.
  return isCrowded(edit, passage, shape)
    ? steps.map((s) => ({ ...s, style: { ...s.style, block: s.style.block ?? blockFor(s.style.colour) } }))
    : steps
}

/** The titles that are on at output time `t`, in their order. */
export function titlesAt({ titles }: Pick<Words, 'titles'>, t: Micros, lengthMicros: Micros): TitleCard[] {
  return titles.filter((title) => title.text.trim() !== '' && isOnAt(title, t, lengthMicros))
}

/** Titles that are on at the same time share their area. */
function titleSteps(titles: readonly TitleCard[], area: Rect, shape: Shape, t: Micros): TextStep[] {
  return titles.flatMap(({ text, style, fromMicros }, i) =>
    step(text, style, wordRow(area, i, titles.length), shape, t - (fromMicros ?? 0)),
  )
}

/** One of so many rows of an area. */
export function wordRow(area: Rect, i: number, of: number): Rect {
  const height = area.height / Math.max(1, of)
  return { ...area, y: area.y + i * height, height }
}

/** Two who speak at once have their lines one above the other. */
function captionSteps(
  { captions, speakers }: Words,
  cues: readonly OutputCue[],
  area: Rect,
  shape: Shape,
  t: Micros,
): TextStep[] {
  return cues.flatMap((cue, i) => {
    const speaker = speakers.find((s) => s.id === cue.speakerId)
    const style =
      speaker?.colour && captions.speakers === 'colour' ? inColour(captions.style, speaker.colour) : captions.style
    const before = speaker && captions.speakers === 'name' ? `${speaker.name}: ` : ''
    const spoken =
      captions.style.emphasis.kind === 'none' ? null : (cue.tokens.findLast((w) => w.fromMicros <= t) ?? null)
    const word = spoken && { from: spoken.from + before.length, to: spoken.to + before.length }
    return step(before + cue.text, style, wordRow(area, i, cues.length), shape, t - cue.fromMicros).map(
      (made): TextStep => ({ ...made, word }),
    )
  })
}

/** A speaker's colour: of the letters, or of what they stand on, so that they can still be read. */
function inColour(style: TextStyle, colour: string): TextStyle {
  return style.block
    ? { ...style, block: { ...style.block, colour }, colour: isLight(colour) ? '#101410' : '#ffffff' }
    : { ...style, colour }
}

function step(text: string, style: TextStyle, area: Rect, canvas: Size, since: Micros): TextStep[] {
  return text.trim() === ''
    ? []
    : [{ kind: 'text', text, style: styleIn(style, area, canvas), area, word: null, ...entered(style, since) }]
}

/**
 * A style that says where in its area words stand, wherever that area is: *near* the picture is towards the canvas's
 * middle.
 */
export function styleIn(style: TextStyle, area: Rect, canvas: Size): TextStyle {
  return style.place === 'near'
    ? { ...style, place: area.y + area.height / 2 < canvas.height / 2 ? 'bottom' : 'top' }
    : style
}

function entered({ entry }: TextStyle, since: Micros): Pick<TextStep, 'opacity' | 'scale'> {
  if (entry === 'fade') return { opacity: Math.min(1, Math.max(0, since / FADE_MICROS)), scale: 1 }
  if (entry === 'pop' && since < POP_MICROS) {
    return { opacity: 1, scale: 1 - (1 - POP_FROM) * (1 - Math.max(0, since) / POP_MICROS) ** 3 }
  }
  return { opacity: 1, scale: 1 }
}

const placedCues = new WeakMap<TimeMap, { words: Words; cues: OutputCue[] }>()

/** {@link outputCues}, made once for a time map and its words. */
export function cuesOf(words: Words, map: TimeMap): OutputCue[] {
  const cached = placedCues.get(map)
  if (cached?.words === words) return cached.cues
  const cues = outputCues(words, map)
  placedCues.set(map, { words, cues })
  return cues
}
