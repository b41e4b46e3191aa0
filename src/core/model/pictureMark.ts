import { z } from 'zod'
import { colour } from './colour'
import { imageFileId, markId, type ImageFileId } from './ids'
import { anchor } from './inset'
import { micros } from './record'
import { PLAIN_TEXT, textStyle } from './textStyle'

/** When a mark is on: output time, end-exclusive; null stands for the highlight's own start or end. */
const timed = z.object({
  id: markId,
  fromMicros: micros.nullable().default(null),
  toMicros: micros.nullable().default(null),
})

/**
 * Where a mark hangs, as insets do; but `width` is a share of the canvas's shorter side, so that it looks as large in
 * every shape.
 */
const hung = timed.extend({
  anchor,
  dx: z.number().min(-1).max(1),
  dy: z.number().min(-1).max(1),
  width: z.number().min(0.02).max(1),
  /** Whether it goes, in each shape, where the least that matters is under it; not so once somebody has moved it. */
  findsPlace: z.boolean().optional(),
})

const opacity = z.number().min(0).max(1).default(1)

/** A name or an address. */
const handle = hung.extend({ kind: z.literal('handle'), text: z.string().max(60), style: textStyle })

/** A logo, a sticker, a picture; one that moves goes round and round. */
const picture = hung.extend({ kind: z.literal('picture'), imageFileId, opacity })

/** How loud it is, as it moves. `proportion`: width over height. */
const level = hung.extend({
  kind: z.literal('level'),
  form: z.enum(['bars', 'line']),
  proportion: z.number().min(0.2).max(20),
  colour,
  opacity,
})

/** The whole seconds that are left of the time that it is on. */
const countdown = hung.extend({ kind: z.literal('countdown'), style: textStyle })

/** How much of the highlight is over, along an edge. `thickness` is a share of the canvas's shorter side. */
const progress = timed.extend({
  kind: z.literal('progress'),
  edge: z.enum(['top', 'bottom', 'left', 'right']),
  thickness: z.number().min(0.002).max(0.1),
  colour,
  behind: colour,
  behindOpacity: z.number().min(0).max(1),
})

/** Covers everything for the last `lengthMicros`: a ground, a picture on it, words under that. */
const endCard = z.object({
  id: markId,
  kind: z.literal('endCard'),
  lengthMicros: micros.positive(),
  ground: colour,
  imageFileId: imageFileId.nullable(),
  text: z.string().max(200),
  style: textStyle,
})

/** Something that is put over the picture, and is not said by anyone. */
export const pictureMark = z.discriminatedUnion('kind', [handle, picture, level, countdown, progress, endCard])
export type PictureMark = z.infer<typeof pictureMark>
export type MarkKind = PictureMark['kind']
export type MarkOf<K extends MarkKind> = Extract<PictureMark, { kind: K }>
/** Those that have a place of their own. */
export type HungMark = MarkOf<'handle' | 'picture' | 'level' | 'countdown'>

export const MAX_MARKS = 40

export const isHung = (mark: PictureMark): mark is HungMark => 'anchor' in mark

/** The pictures that marks show. */
export function picturesOfMarks(marks: readonly PictureMark[]): ImageFileId[] {
  return marks.flatMap((m) => ('imageFileId' in m && m.imageFileId !== null ? [m.imageFileId] : []))
}

/** Letters that can be read over any picture. */
const OVER_PICTURE = { ...PLAIN_TEXT, lines: 1, size: 0.042, weight: 600 } as const

/**
 * A mark of a kind as it is put on a picture first: small, half-way down where neither feeds nor words are, in
 * colours of nobody's.
 */
export function newMark(
  id: z.infer<typeof markId>,
  what: { kind: 'picture'; imageFileId: ImageFileId } | { kind: Exclude<MarkKind, 'picture'> },
): PictureMark {
  const always = { id, fromMicros: null, toMicros: null }
  const hanging = { ...always, findsPlace: true }
  switch (what.kind) {
    case 'handle':
      return { ...hanging, kind: 'handle', anchor: 'w', dx: 0.05, dy: 0.04, width: 0.5, text: '', style: OVER_PICTURE }
    case 'picture':
      return {
        ...hanging,
        kind: 'picture',
        anchor: 'w',
        dx: 0.05,
        dy: -0.09,
        width: 0.18,
        imageFileId: what.imageFileId,
        opacity: 1,
      }
    case 'level':
      return {
        ...hanging,
        kind: 'level',
        anchor: 'c',
        dx: 0.2,
        dy: 0.04,
        width: 0.36,
        form: 'bars',
        proportion: 5,
        colour: '#ffffff',
        opacity: 0.9,
      }
    case 'countdown':
      return {
        ...hanging,
        kind: 'countdown',
        anchor: 'e',
        dx: -0.05,
        dy: -0.09,
        width: 0.18,
        style: { ...OVER_PICTURE, size: 0.09, weight: 800 },
      }
    case 'progress':
      return {
        ...always,
        kind: 'progress',
        edge: 'bottom',
        thickness: 0.012,
        colour: '#ffffff',
        behind: '#000000',
        behindOpacity: 0.35,
      }
    case 'endCard':
      return {
        id,
        kind: 'endCard',
        lengthMicros: 2_500_000,
        ground: '#20261f',
        imageFileId: null,
        text: '',
        style: { ...OVER_PICTURE, size: 0.075, lines: 3, shadow: null },
      }
  }
}
