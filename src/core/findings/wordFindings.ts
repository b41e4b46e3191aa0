import { wordAreasIn } from '../compose/arrangementIn'
import { cuesOf } from '../compose/wordSteps'
import type { Edit } from '../model/edit'
import type { Shape } from '../model/shape'
import { MICROS_PER_SECOND } from '../time/micros'
import type { TimeMap } from '../time/timeMap'
import { MIN_SIZE, setText, type Measure } from '../words/setText'
import type { CueId, TitleId } from '../model/ids'
import type { TextStyle } from '../model/textStyle'
import { blended, blockFor, contrastRatio } from '../words/contrast'
import { tokensOf } from '../words/tokens'
import type { FindingDraft } from './finding'

/** Characters a second that most people follow, and that nobody does. */
const BRISK = 18
const TOO_FAST = 23

/** What is wrong with captions whatever their shape: those that are gone before they are read. */
export function readingFindings(edit: Edit, map: TimeMap): FindingDraft[] {
  const { words } = edit.highlight
  const cues = cuesOf(words, map)
  return cues.flatMap((cue, i): FindingDraft[] => {
    const perSecond = [...cue.text.trim()].length / ((cue.toMicros - cue.fromMicros) / MICROS_PER_SECOND)
    if (perSecond <= BRISK) return []
    const own = words.cues.find((c) => c.id === cue.cueId)
    const next = words.cues.find((c) => own && c.recordingId === own.recordingId && c.fromMicros >= own.toMicros)
    const room = own
      ? Math.min(
          next?.fromMicros ?? Infinity,
          own.fromMicros + Math.ceil(([...cue.text.trim()].length / BRISK) * MICROS_PER_SECOND),
        )
      : 0
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
        remedies: own && room > own.toMicros ? [{ kind: 'lengthen-cue', cueId: own.id, toMicros: room }] : [],
      },
    ]
  })
}

/** Titles and captions with letters that no font has. */
export function glyphFindings(edit: Edit, map: TimeMap, missing: ReadonlySet<string>): FindingDraft[] {
  const { words } = edit.highlight
  const lettersOf = (text: string) =>
    [...new Set(text.normalize('NFC'))].filter((letter) => missing.has(letter)).join('')
  const of = (
    what: 'title' | 'caption',
    id: string,
    text: string,
    span: Pick<FindingDraft, 'fromMicros' | 'toMicros'>,
    more: Partial<FindingDraft> = {},
  ): FindingDraft[] => {
    const letters = lettersOf(text)
    return letters === ''
      ? []
      : [
          {
            key: `missing-glyphs ${id}`,
            severity: 'warn',
            fault: { kind: 'missing-glyphs', what, text, letters },
            shapeId: null,
            passageId: null,
            panelId: null,
            ...span,
            ...more,
            rect: null,
            remedies: [],
          },
        ]
  }
  const titles = words.titles.flatMap((t) =>
    of(
      'title',
      t.id,
      t.text,
      { fromMicros: t.fromMicros ?? 0, toMicros: t.toMicros ?? map.lengthMicros },
      { titleId: t.id },
    ),
  )
  const captions = words.captions.shown
    ? cuesOf(words, map).flatMap((c) =>
        of(
          'caption',
          `${c.cueId} ${c.fromMicros}`,
          c.text,
          { fromMicros: c.fromMicros, toMicros: c.toMicros },
          { passageId: map.passages[c.index]?.passage.id ?? null },
        ),
      )
    : []
  return [...titles, ...captions]
}

/** Characters in a line that the eye still finds its way back from, and that it does not. */
const LONG_LINE = 42
const TOO_LONG_LINE = 56

/**
 * Words that had to be set far smaller than asked for, and captions whose lines are long, in a shape. `measure` as
 * for setText; the fonts must be there.
 */
export function fitFindings(edit: Edit, map: TimeMap, shape: Shape, measure: Measure): FindingDraft[] {
  const { words, passages } = edit.highlight
  const side = Math.min(shape.width, shape.height)
  const areaIn = (kind: 'titleArea' | 'captionArea', index: number) => {
    const passage = passages[index] ?? passages[0]
    return passage ? wordAreasIn(edit, passage, shape)[kind] : null
  }
  const check = (
    text: string,
    style: TextStyle,
    titleId: TitleId | null,
    index: number,
    about: Pick<FindingDraft, 'key' | 'fromMicros' | 'toMicros'>,
    cueId?: CueId,
  ): FindingDraft[] => {
    const area = areaIn(titleId ? 'titleArea' : 'captionArea', index)
    if (!area || text.trim() === '') return []
    const set = setText(text, style, area, side, measure)
    const share = set ? set.face.size / (style.size * side) : 0
    const where = {
      ...about,
      shapeId: shape.id,
      passageId: passages[index]?.id ?? null,
      panelId: null,
      ...(titleId && { titleId }),
      rect: area,
    }
    if (!set || set.tooLong) {
      const size = set ? Math.floor((set.face.size / side) * 1000) / 1000 : 0
      return [
        {
          ...where,
          key: `does-not-fit ${about.key}`,
          severity: share < MIN_SIZE / 2 ? 'stop' : 'warn',
          fault: { kind: 'does-not-fit', what: titleId ? 'title' : 'caption', text, share },
          remedies:
            size >= 0.02
              ? [
                  { kind: 'style', why: 'fit', titleId, change: { lines: 3 } },
                  { kind: 'style', why: 'fit', titleId, change: { lines: 3, size } },
                ]
              : [],
        },
      ]
    }
    const characters = Math.max(...set.lines.map((l) => l.to - l.from))
    if (!cueId || characters <= LONG_LINE) return []
    return [
      {
        ...where,
        key: `long-line ${about.key}`,
        severity: characters > TOO_LONG_LINE ? 'warn' : 'note',
        fault: { kind: 'long-line', cueId, text, characters },
        remedies: splitInMiddle(words.cues, cueId),
      },
    ]
  }
  return [
    ...words.titles.flatMap((t) =>
      check(t.text, t.style, t.id, 0, {
        key: `${shape.id} ${t.id}`,
        fromMicros: t.fromMicros ?? 0,
        toMicros: t.toMicros ?? map.lengthMicros,
      }),
    ),
    ...(words.captions.shown
      ? cuesOf(words, map).flatMap((c) =>
          check(
            c.text,
            words.captions.style,
            null,
            c.index,
            { key: `${shape.id} ${c.cueId} ${c.fromMicros}`, fromMicros: c.fromMicros, toMicros: c.toMicros },
            c.cueId,
          ),
        )
      : []),
  ]
}

/** A cue split between two words, as near to its middle as may be. */
function splitInMiddle(cues: Edit['highlight']['words']['cues'], id: CueId): FindingDraft['remedies'] {
  const cue = cues.find((c) => c.id === id)
  const starts = cue
    ? tokensOf(cue.text)
        .slice(1)
        .map((t) => t.from)
    : []
  const at = starts.sort(
    (a, b) => Math.abs(a - (cue?.text.length ?? 0) / 2) - Math.abs(b - (cue?.text.length ?? 0) / 2),
  )[0]
  const newId = `${id} b` as CueId
  return at === undefined || cues.some((c) => c.id === newId) ? [] : [{ kind: 'split-cue', cueId: id, at, newId }]
}

/** Large letters are read against what is behind them from this contrast on (WCAG 2.2, 1.4.3). */
const MIN_CONTRAST = 3
/**
 * A ring thinner than this, as a share of the em, or a shadow fainter than that does not part letters from a picture.
 */
const MIN_RING = 0.04
const MIN_SHADOW = 0.5

/**
 * Titles and captions whose letters cannot be told from what is right behind them: their block, ring or shadow, or,
 * without any, whatever the picture has there.
 */
export function contrastFindings(edit: Edit, map: TimeMap): FindingDraft[] {
  const { titles, captions, cues, speakers } = edit.highlight.words
  const check = (
    what: 'title' | 'captions',
    titleId: TitleId | null,
    style: TextStyle,
    inks: readonly string[],
    fromMicros: number,
    toMicros: number,
  ): FindingDraft[] => {
    const ratio = Math.min(...inks.map((ink) => againstBehind(ink, style)))
    if (ratio >= MIN_CONTRAST) return []
    const block = blockFor(style.colour)
    return [
      {
        key: `low-contrast ${titleId ?? 'captions'}`,
        severity: 'warn',
        fault: { kind: 'low-contrast', what, ratio },
        shapeId: null,
        passageId: null,
        panelId: null,
        ...(titleId && { titleId }),
        fromMicros,
        toMicros,
        rect: null,
        remedies: [{ kind: 'style', why: 'contrast', titleId, change: { block } }],
      },
    ]
  }
  const shown = captions.shown ? cuesOf(edit.highlight.words, map) : []
  const [first] = shown
  const said = new Set(cues.map((c) => c.speakerId))
  // On a block, a speaker's colour is the block's, and letters take what can be read on it.
  const spoken =
    captions.speakers === 'colour' && !captions.style.block
      ? speakers.flatMap((s) => (s.colour && said.has(s.id) ? [s.colour] : []))
      : []
  return [
    ...titles.flatMap((t) =>
      t.text.trim() === ''
        ? []
        : check('title', t.id, t.style, [t.style.colour], t.fromMicros ?? 0, t.toMicros ?? map.lengthMicros),
    ),
    ...(first
      ? check(
          'captions',
          null,
          captions.style,
          [captions.style.colour, ...spoken],
          first.fromMicros,
          shown.at(-1)?.toMicros ?? first.toMicros,
        )
      : []),
  ]
}

function againstBehind(ink: string, { block, outline, shadow }: TextStyle): number {
  // What a block lets through may be anything: the worst of black and white.
  const onBlock = block
    ? Math.min(
        ...['#000000', '#ffffff'].map((under) => contrastRatio(ink, blended(block.colour, under, block.opacity))),
      )
    : 1
  const inRing = outline && outline.width >= MIN_RING ? contrastRatio(ink, outline.colour) : 1
  const onShadow = shadow && shadow.opacity >= MIN_SHADOW && shadow.blur > 0 ? contrastRatio(ink, shadow.colour) : 1
  return Math.max(onBlock, inRing, onShadow)
}
