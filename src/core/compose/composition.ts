import type { Point, Rect, Size } from '../geometry/rect'
import type { ImageFileId, PanelId, RecordingId } from '../model/ids'
import type { Turn } from '../model/panel'
import type { Micros } from '../time/micros'
import type { PictureOutline } from './pictureOutline'

/**
 * A moment of a recording. `lane` tells whose walk through the recording's frames it belongs to: two passages that are on screen at once,
 * and the stretches before and after a strike, each have their own.
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
 * One drawing step. Plain data: no canvas, no decoding. Whoever draws a list draws its steps in order, later over earlier.
 * `dest` is in canvas pixels; `crop` in display-oriented pixels of the recording, where fractions are allowed so that nothing is
 * stretched. *colour*, *gradient*, *blur* and *image* fill the canvas; `radius` is the blur's standard deviation in canvas pixels. A
 * `layer` is a canvas of its own, moved by `offset` and laid over with `opacity` 0..1, seen through `window` alone; a `tint` covers
 * everything drawn so far.
 */
export type Step =
  | { kind: 'colour'; colour: string }
  | { kind: 'gradient'; from: string; to: string; degrees: number }
  | { kind: 'image'; imageFileId: ImageFileId }
  | { kind: 'blur'; feed: Feed; crop: Rect; radius: number }
  | { kind: 'picture'; panelId: PanelId; feed: Feed; crop: Rect; dest: Rect; orientation: Orientation; outline: PictureOutline | null; opacity: number }
  | { kind: 'layer'; offset: Point; opacity: number; window: Rect; steps: Step[] }
  | { kind: 'tint'; colour: string; opacity: number }

export type PictureStep = Extract<Step, { kind: 'picture' }>
/** A step that shows something of a recording. */
export type FootageStep = Extract<Step, { feed: Feed }>

/** One frame of output as a list of steps over a canvas of `size` pixels. */
export interface Composition {
  size: Size
  steps: Step[]
}

/** Every step that shows something of a recording, in drawing order. */
export function footageOf({ steps }: Pick<Composition, 'steps'>): FootageStep[] {
  return steps.flatMap((step) => ('feed' in step ? [step] : step.kind === 'layer' ? footageOf(step) : []))
}

/** Every moment that a composition shows, in drawing order. */
export function feedsOf(composition: Pick<Composition, 'steps'>): Feed[] {
  return footageOf(composition).map((p) => p.feed)
}
