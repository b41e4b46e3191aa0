import { useEffect, useMemo, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { useBenchContext, useParts, useTimeMap, useView } from '../benchContext'
import { regionsIn } from '../passageRegions'
import { along, followedIn, lookAlong, planAlong, stopLookingAlong, type Along } from './along'

/** Looking along begins when nothing has changed for this long, and nothing plays: it takes a decoder and a core for itself. */
const CALM_MS = 6000

/** What has been seen along the highlight for the setup that is worked on; looks anew when passages or regions have changed. */
export function useAlong(): Along | null {
  const { files, player } = useBenchContext()
  const { passage, recording, setup } = useParts()
  const map = useTimeMap()
  const wanted = useView((v) => v.wantsFollow)
  const plan = useMemo(() => planAlong(map, recording, passage, regionsIn(passage, setup.regions), setup.isGuess, new Set([...followedIn(passage), ...(wanted ? [wanted] : [])])), [map, recording, passage, setup.regions, setup.isGuess, wanted])
  const shown = useStore(along, (s) => s.shown)
  const playing = useSyncExternalStore(player.subscribe, () => player.getState().kind === 'playing', () => false)
  const known = shown?.key === plan.key && shown.state !== 'stopped'
  useEffect(() => {
    const file = files.get(recording.id)
    if (known || playing || !file) return
    const timer = setTimeout(() => void lookAlong(plan, file), wanted ? 0 : CALM_MS)
    return () => clearTimeout(timer)
    // The key says all that matters of a plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [plan.key, known, playing, files, wanted])
  useEffect(() => {
    if (playing) stopLookingAlong()
  }, [playing])
  useEffect(() => stopLookingAlong, [])
  return shown?.key === plan.key ? shown : null
}
