import type { Rect, Size } from '../geometry/rect'
import type { PanelId, RecordingId } from '../model/ids'
import type { Micros } from '../time/micros'

/** A moment of a recording. */
export interface Feed {
  recordingId: RecordingId
  micros: Micros
}

/**
 * One drawing step. Plain data: no canvas, no decoding. Whoever draws a list draws its steps in order, later over earlier.
 * `dest` is in canvas pixels (even integers); `crop` in display-oriented pixels of the recording, where fractions are
 * allowed so that nothing is stretched.
 */
export type Step =
  | { kind: 'backdrop'; colour: string }
  | { kind: 'picture'; panelId: PanelId; feed: Feed; crop: Rect; dest: Rect }

export type PictureStep = Extract<Step, { kind: 'picture' }>

/** One frame of output as a list of steps over a canvas of `size` pixels. */
export interface Composition {
  size: Size
  steps: Step[]
}

/** Every moment that a composition shows, in drawing order. */
export function feedsOf(composition: Composition): Feed[] {
  return composition.steps.flatMap((step) => (step.kind === 'picture' ? [step.feed] : []))
}
