import type { Micros } from '@/core/time/micros'
import type { Moment } from '@/core/model/spotting'
import { adjust, drop, keep, markAt } from '@/edit/moments'
import { bringIntoSight, useSpotContext } from './spotContext'
import type { SpottedMoments } from './useMoments'

export interface SpotActions {
  mark: () => void
  next: () => void
  previous: () => void
  keepSelected: () => void
  dropSelected: () => void
  /** Sets the in or out point of the moment that is picked up where the playhead is. */
  setEdge: (which: 'in' | 'out') => void
}

/**
 * What can be done on the Spot screen at the playhead and to the moment that is picked up: by key, or by the buttons
 * at the bottom.
 */
export function useSpotActions(found: SpottedMoments): SpotActions {
  const { recording, session, player, view } = useSpotContext()
  const { durationMicros } = recording
  const onSelected = (act: (moment: Moment) => void) => {
    const moment = found.moments.find((m) => m.id === view.getState().selected)
    if (moment) act(moment)
  }
  const toMoment = (by: 1 | -1) => {
    const all = found.moments.filter((m) => m.state !== 'dropped')
    const at = all.findIndex((m) => m.id === view.getState().selected)
    const next = at >= 0 ? all[(at + by + all.length) % all.length] : nearest(all, by, player.positionMicros)
    if (!next) return
    view.setState({ selected: next.id })
    bringIntoSight(view, durationMicros, next.inMicros, next.outMicros)
    player.seek(next.inMicros)
    void player.play()
  }
  return {
    mark: () => view.setState({ selected: markAt(session, recording, found.analysis, player.positionMicros).id }),
    next: () => toMoment(1),
    previous: () => toMoment(-1),
    keepSelected: () => onSelected((m) => keep(session, { moment: m })),
    dropSelected: () => onSelected((m) => drop(session, { moment: m })),
    setEdge: (which) =>
      onSelected((m) =>
        adjust(session, { recording, moment: m, which, t: player.positionMicros }, crypto.randomUUID()),
      ),
  }
}

/** The moment that comes next after a time, or before it; from the ends on the other way round. */
function nearest(moments: readonly Moment[], by: 1 | -1, t: Micros): Moment | undefined {
  return by > 0
    ? (moments.find((m) => m.inMicros >= t) ?? moments[0])
    : (moments.findLast((m) => m.inMicros < t) ?? moments.at(-1))
}
