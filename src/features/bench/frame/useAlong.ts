import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { useBenchContext, useCalmParts, useTimeMap, useView } from '../benchContext'
import {
  along,
  followedIn,
  lookAlong,
  planAlong,
  stopLookingAlong,
  type Along,
  type AlongPlan,
} from '@/shared/looks/along'
import { untilCalm } from '@/media/ranks/turns'
import { useLook } from './useLook'

/** What is to be looked at along the highlight, and what has been seen of that. */
function usePlanned(): { plan: AlongPlan; shown: Along | null } {
  const { passage, recording, setup } = useCalmParts()
  const map = useTimeMap()
  const wanted = useView((v) => v.wantsFollow)
  const plan = useMemo(
    () =>
      planAlong(
        map,
        recording,
        passage,
        setup.regions,
        setup.isGuess,
        new Set([...followedIn(passage), ...(wanted ? [wanted] : [])]),
      ),
    [map, recording, passage, setup.regions, setup.isGuess, wanted],
  )
  const shown = useStore(along, (s) => s.shown)
  return { plan, shown: shown?.key === plan.key ? shown : null }
}

/** What has been seen along the highlight for the setup that is worked on, as long as that still holds. */
export function useSeenAlong(): Along | null {
  return usePlanned().shown
}

/** The same, and it looks anew when passages or regions have changed. For one place on the screen. */
export function useAlong(): Along | null {
  const { files, player } = useBenchContext()
  const { plan, shown } = usePlanned()
  const wanted = useView((v) => v.wantsFollow)
  const playing = useSyncExternalStore(
    player.subscribe,
    () => player.getState().kind === 'playing',
    () => false,
  )
  // Regions that are just being found would be looked along anew at once.
  const isLookedAt = useLook()?.kind === 'looking'
  const { key } = plan
  const known = shown !== null && shown.state !== 'stopped'
  const latest = useRef(plan)
  latest.current = plan
  useEffect(() => {
    // Plans of one key ask for the same.
    void key
    if (known || playing || isLookedAt) return
    const ended = new AbortController()
    // It takes a decoder and a core for itself: when it is calm, unless somebody waits for it.
    const turn = wanted ? Promise.resolve() : untilCalm('looks', ended.signal)
    const look = () => {
      const file = files.get(latest.current.recording.id)
      if (file && !ended.signal.aborted) void lookAlong(latest.current, file, player.positionMicros)
    }
    turn.then(look, () => {})
    return () => ended.abort()
  }, [key, known, playing, isLookedAt, files, wanted, player])
  useEffect(() => {
    if (playing) stopLookingAlong()
  }, [playing])
  // What is looked at for a highlight that is another one by now helps nobody.
  useEffect(() => stopLookingAlong, [key])
  return shown
}
