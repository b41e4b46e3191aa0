import { cuesOf } from '../compose/wordSteps'
import { arrangementFor } from '../layout/arrangementFor'
import { wordArea } from '../layout/wordAreas'
import { layoutOf, type Edit } from '../model/edit'
import type { Shape } from '../model/shape'
import { MICROS_PER_SECOND } from '../time/micros'
import type { TimeMap } from '../time/timeMap'
import { LEAST_SIZE, setText, type Measure } from '../words/setText'
import type { Finding } from './finding'

/** Characters a second that most people follow, and that nobody does. */
const BRISK = 18
const TOO_FAST = 23

/** What is wrong with captions whatever their shape: those that are gone before they are read. */
export function readingFindings(edit: Edit, map: TimeMap): Finding[] {
  const { words } = edit.highlight
  const cues = cuesOf(words, map)
  return cues.flatMap((cue, i): Finding[] => {
    const perSecond = [...cue.text.trim()].length / ((cue.toMicros - cue.fromMicros) / MICROS_PER_SECOND)
    if (perSecond <= BRISK) return []
    const own = words.cues.find((c) => c.id === cue.cueId)
    const next = words.cues.find((c) => own && c.recordingId === own.recordingId && c.fromMicros >= own.toMicros)
    const room = own ? Math.min(next?.fromMicros ?? Infinity, own.fromMicros + Math.ceil(([...cue.text.trim()].length / BRISK) * MICROS_PER_SECOND)) : 0
    return [
      {
        key: `hard-to-read ${cue.cueId} ${cues.slice(0, i).filter((c) => c.cueId === cue.cueId).length}`,
        severity: perSecond > TOO_FAST ? 'warn' : 'note',
        fault: { kind: 'hard-to-read', cueId: cue.cueId, text: cue.text, perSecond },
        shapeId: null,
        passageId: map.passages[cue.index]?.passage.id ?? null,
        panelId: null,
        fromMicros: cue.fromMicros,
        toMicros: cue.toMicros,
        rect: null,
        remedy: own && room > own.toMicros ? { kind: 'lengthen-cue', cueId: own.id, toMicros: room } : null,
      },
    ]
  })
}

/** Words that had to be set far smaller than asked for, in a shape. `measure` as for setText; the fonts must be there. */
export function fitFindings(edit: Edit, map: TimeMap, shape: Shape, measure: Measure): Finding[] {
  const { words, passages } = edit.highlight
  const side = Math.min(shape.width, shape.height)
  const areaIn = (kind: 'titleArea' | 'captionArea', index: number) => {
    const passage = passages[index] ?? passages[0]
    return passage ? wordArea(kind, arrangementFor(layoutOf(edit, passage.layoutId), shape), shape) : null
  }
  const check = (text: string, what: 'title' | 'caption', index: number, about: Pick<Finding, 'key' | 'fromMicros' | 'toMicros'>): Finding[] => {
    const style = what === 'title' ? words.titles.find((t) => about.key.endsWith(t.id))?.style : words.captions.style
    const area = areaIn(what === 'title' ? 'titleArea' : 'captionArea', index)
    if (!style || !area || text.trim() === '') return []
    const set = setText(text, style, area, side, measure)
    const share = set ? set.face.size / (style.size * side) : 0
    if (set && !set.tooLong) return []
    return [{ ...about, severity: share < LEAST_SIZE / 2 ? 'stop' : 'warn', fault: { kind: 'does-not-fit', what, text, share }, shapeId: shape.id, passageId: passages[index]?.id ?? null, panelId: null, rect: area, remedy: null }]
  }
  return [
    ...words.titles.flatMap((t) => check(t.text, 'title', 0, { key: `does-not-fit ${shape.id} ${t.id}`, fromMicros: t.fromMicros ?? 0, toMicros: t.toMicros ?? map.lengthMicros })),
    ...(words.captions.shown ? cuesOf(words, map).flatMap((c) => check(c.text, 'caption', c.index, { key: `does-not-fit ${shape.id} ${c.cueId} ${c.fromMicros}`, fromMicros: c.fromMicros, toMicros: c.toMicros })) : []),
  ]
}
