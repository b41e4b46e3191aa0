import type { Moment } from '@/core/model/spotting'
import { adjust, drop, keep, markAt } from '@/edit/moments'
import { bringIntoSight, useSpotContext } from './spotContext'
import type { Found } from './useMoments'

export interface SpotActions {
  mark: () => void
  next: () => void
  previous: () => void
  keepSelected: () => void
  dropSelected: () => void
  /** Sets the in or out point of the moment that is picked up where the playhead is. */
  setEdge: (which: 'in' | 'out') => void
}

/** What can be done on the Spot screen at the playhead and to the moment that is picked up: by key, or by the buttons at the bottom. */
export function useSpotActions(found: Found): SpotActions {
  const { recording, session, player, view } = useSpotContext()
  const { durationMicros } = recording
  const onSelected = (act: (moment: Moment) => void) => {
    const moment = found.moments.find((m) => m.id === view.getState().selected)
    if (moment) act(moment)
  }
  const toMoment = (by: 1 | -1) => {
    const all = found.moments.filter((m) => m.state !== 'dropped')
    const at = all.findIndex((m) => m.id === view.getState().selected)
    const here = player.positionMicros
    const next =
      at >= 0
        ? all[(at + by + all.length) % all.length]
        : by > 0
          ? (all.find((m) => m.inMicros >= here) ?? all[0])
          : (all.findLast((m) => m.inMicros < here) ?? all.at(-1))
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
