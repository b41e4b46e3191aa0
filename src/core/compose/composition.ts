import type { Point, Rect, Size } from '../geometry/rect'
import type { ImageFileId, PanelId, RecordingId } from '../model/ids'
import type { Turn } from '../model/panel'
import type { TextStyle } from '../model/textStyle'
import type { Micros } from '../time/micros'
import type { Token } from '../words/tokens'
import type { PictureOutline } from './pictureOutline'

/**
 * A moment of a recording. `lane` tells whose walk through the recording's frames it belongs to: two passages that
 * are on screen at once, and the stretches before and after a strike, each have their own.
 */
export interface Feed {
  recordingId: RecordingId
  micros: Micros
  lane: string
}

/** Clockwise quarter turns of a crop, after left and right were changed over where `flip` says so. */
export interface Orientation {
  turn: Turn
  flip: boolean
}

/**
 * One drawing step. Plain data: no canvas, no decoding. Whoever draws a list draws its steps in order, later over
 * earlier. `dest` is in canvas pixels; `crop` in display-oriented pixels of the recording, where fractions are
 * allowed so that nothing is stretched. *colour*, *gradient* and *blur* fill the canvas, and so does an *image*
 * without a `dest`; one that moves is `micros` into itself; `radius` is the blur's standard deviation in canvas
 * pixels. A `layer` is a canvas of its own, moved by `offset` and laid over with `opacity` 0..1, seen through
 * `window` alone; a `tint` covers everything drawn so far, a *block* a part of it. *level* is a figure of how loud
 * the output is about its time `micros`. *text* is set into `area` by core/words/setText; `word` is the one being
 * spoken, in characters of `text`; `scale` is about the middle of the words.
 */
export type Step =
  | { kind: 'colour'; colour: string }
  | { kind: 'gradient'; from: string; to: string; degrees: number }
  | { kind: 'image'; imageFileId: ImageFileId; micros: Micros; dest: Rect | null; opacity: number }
  | { kind: 'blur'; feed: Feed; crop: Rect; radius: number }
  | {
      kind: 'picture'
      panelId: PanelId
      feed: Feed
      crop: Rect
      dest: Rect
      orientation: Orientation
      outline: PictureOutline | null
      opacity: number
    }
  | { kind: 'layer'; offset: Point; opacity: number; window: Rect; steps: Step[] }
  | { kind: 'tint'; colour: string; opacity: number }
  | { kind: 'block'; rect: Rect; colour: string; opacity: number }
  | { kind: 'level'; rect: Rect; form: 'bars' | 'line'; colour: string; opacity: number; micros: Micros }
  | { kind: 'text'; text: string; style: TextStyle; area: Rect; word: Token | null; opacity: number; scale: number }

export type PictureStep = Extract<Step, { kind: 'picture' }>
export type TextStep = Extract<Step, { kind: 'text' }>
/** A step that shows something of a recording. */
export type FootageStep = Extract<Step, { feed: Feed }>

/** One frame of output as a list of steps over a canvas of `size` pixels. */
export interface Composition {
  size: Size
  steps: Step[]
}

/** Every step that shows something of a recording, in drawing order. */
export function footageOf({ steps }: Pick<Composition, 'steps'>): FootageStep[] {
  return steps.flatMap((step) => {
    if ('feed' in step) return [step]
    return step.kind === 'layer' ? footageOf(step) : []
  })
}

/** Every text that a composition shows. Words are never inside a layer: they stand still while pictures move. */
export function textsOf({ steps }: Pick<Composition, 'steps'>): TextStep[] {
  return steps.filter((s) => s.kind === 'text')
}

/** Tells a moment of a walk from every other. */
export const momentKey = ({ lane, recordingId, micros }: Feed) => `${lane} ${recordingId} ${micros}`

/** Tells what a step takes from a recording from all that others take. */
export const footageKey = ({ feed, crop }: FootageStep) =>
  `${momentKey(feed)} ${crop.x} ${crop.y} ${crop.width} ${crop.height}`

/** Every moment that a composition shows, in drawing order. */
export function feedsOf(composition: Pick<Composition, 'steps'>): Feed[] {
  return footageOf(composition).map((p) => p.feed)
}
