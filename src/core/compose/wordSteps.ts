import { arrangementFor } from '../layout/arrangementFor'
import { wordArea } from '../layout/wordAreas'
import type { Rect, Size } from '../geometry/rect'
import { layoutOf, type Edit } from '../model/edit'
import type { Passage } from '../model/passage'
import type { Shape } from '../model/shape'
import type { TextStyle } from '../model/textStyle'
import type { TitleCard, Words } from '../model/words'
import type { Micros } from '../time/micros'
import { type TimeMap } from '../time/timeMap'
import { cuesAt, outputCues, type OutputCue } from '../words/outputCues'
import type { TextStep } from './composition'

const FADE_MICROS = 200_000
const POP_MICROS = 220_000
/** Words that pop in begin at this share of their size; they never grow beyond it, or they would leave their area. */
const POP_FROM = 0.7

/** What is written over a frame at output time `t`, when `passage` is on: titles, then captions. */
export function wordSteps(edit: Edit, map: TimeMap, shape: Shape, passage: Passage, t: Micros): TextStep[] {
  const { words } = edit.highlight
  const titles = words.titles.filter((title) => isOn(title, t, map.lengthMicros))
  const cues = words.captions.shown ? cuesAt(cuesOf(words, map), map.passages.find((p) => p.passage.id === passage.id)?.index ?? -1, t) : []
  if (titles.length === 0 && cues.length === 0) return []
  const arrangement = arrangementFor(layoutOf(edit, passage.layoutId), shape)
  return [
    ...titles.flatMap(({ text, style, fromMicros }) => step(text, style, wordArea('titleArea', arrangement, shape), shape, t - (fromMicros ?? 0))),
    ...captionSteps(words, cues, wordArea('captionArea', arrangement, shape), shape, t),
  ]
}

function isOn({ fromMicros, toMicros }: Pick<TitleCard, 'fromMicros' | 'toMicros'>, t: Micros, lengthMicros: Micros): boolean {
  return t >= (fromMicros ?? 0) && t < (toMicros ?? lengthMicros)
}

/** Two who speak at once have their lines one above the other. */
function captionSteps({ captions, speakers }: Words, cues: readonly OutputCue[], area: Rect, shape: Shape, t: Micros): TextStep[] {
  const height = area.height / Math.max(1, cues.length)
  return cues.flatMap((cue, i) => {
    const speaker = speakers.find((s) => s.id === cue.speakerId)
    const style = speaker?.colour && captions.speakers === 'colour' ? { ...captions.style, colour: speaker.colour } : captions.style
    const before = speaker && captions.speakers === 'name' ? `${speaker.name}: ` : ''
    const spoken = captions.style.emphasis.kind === 'none' ? null : (cue.tokens.findLast((w) => w.fromMicros <= t) ?? null)
    const word = spoken && { from: spoken.from + before.length, to: spoken.to + before.length }
    return step(before + cue.text, style, { ...area, y: area.y + i * height, height }, shape, t - cue.fromMicros).map((made): TextStep => ({ ...made, word }))
  })
}

function step(text: string, style: TextStyle, area: Rect, canvas: Size, since: Micros): TextStep[] {
  if (text.trim() === '') return []
  const place = style.place === 'near' ? (area.y + area.height / 2 < canvas.height / 2 ? 'bottom' : 'top') : style.place
  return [{ kind: 'text', text, style: { ...style, place }, area, word: null, ...entered(style, since) }]
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
  const known = placedCues.get(map)
  if (known?.words === words) return known.cues
  const cues = outputCues(words, map)
  placedCues.set(map, { words, cues })
  return cues
}
