import type { Point, Rect, Size } from '../geometry/rect'
import type { PanelId, RecordingId } from '../model/ids'
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

/**
 * One drawing step. Plain data: no canvas, no decoding. Whoever draws a list draws its steps in order, later over earlier.
 * `dest` is in canvas pixels (even integers); `crop` in display-oriented pixels of the recording, where fractions are
 * allowed so that nothing is stretched. A `layer` is a whole canvas of its own, moved by `offset` and laid over with `opacity` 0..1;
 * a `tint` covers everything drawn so far.
 */
export type Step =
  | { kind: 'backdrop'; colour: string }
  | { kind: 'picture'; panelId: PanelId; feed: Feed; crop: Rect; dest: Rect; outline: PictureOutline | null }
  | { kind: 'layer'; offset: Point; opacity: number; steps: Step[] }
  | { kind: 'tint'; colour: string; opacity: number }

export type PictureStep = Extract<Step, { kind: 'picture' }>

/** One frame of output as a list of steps over a canvas of `size` pixels. */
export interface Composition {
  size: Size
  steps: Step[]
}

/** Every picture that a composition shows, in drawing order. */
export function picturesOf({ steps }: Pick<Composition, 'steps'>): PictureStep[] {
  return steps.flatMap((step) => (step.kind === 'picture' ? [step] : step.kind === 'layer' ? picturesOf(step) : []))
}

/** Every moment that a composition shows, in drawing order. */
export function feedsOf(composition: Pick<Composition, 'steps'>): Feed[] {
  return picturesOf(composition).map((p) => p.feed)
}
