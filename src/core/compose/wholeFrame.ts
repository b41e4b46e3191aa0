import type { PanelId } from '../model/ids'
import type { Recording } from '../model/recording'
import { clampMicros, type Micros } from '../time/micros'
import type { Composition, Feed } from './composition'

/** A recording's own picture at a moment, all of it, as a composition of its size. */
export function wholeFrame(
  { id, durationMicros, video: { width, height } }: Pick<Recording, 'id' | 'durationMicros' | 'video'>,
  micros: Micros,
  lane: string,
): Composition {
  const all = { x: 0, y: 0, width, height }
  const feed: Feed = { recordingId: id, micros: clampMicros(micros, 0, durationMicros), lane }
  return {
    size: { width, height },
    steps: [
      {
        kind: 'picture',
        panelId: 'frame' as PanelId,
        feed,
        crop: all,
        dest: all,
        orientation: { turn: 0, flip: false },
        outline: null,
        opacity: 1,
      },
    ],
  }
}
