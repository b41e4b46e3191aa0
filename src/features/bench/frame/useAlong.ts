import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { useBenchContext, useParts, useTimeMap, useView } from '../benchContext'
import { along, followedIn, giveWay, lookAlong, planAlong, stopLookingAlong, type Along } from './along'

/** Looking along begins when nothing has changed for this long, and nothing plays: it takes a decoder and a core for itself. */
const CALM_MS = 6000

/** What has been seen along the highlight for the setup that is worked on; looks anew when passages or regions have changed. */
export function useAlong(): Along | null {
  const { files, player } = useBenchContext()
  const { passage, recording, setup } = useParts()
  const map = useTimeMap()
  const wanted = useView((v) => v.wantsFollow)
  const plan = useMemo(() => planAlong(map, recording, passage, setup.regions, setup.isGuess, new Set([...followedIn(passage), ...(wanted ? [wanted] : [])])), [map, recording, passage, setup.regions, setup.isGuess, wanted])
  const shown = useStore(along, (s) => s.shown)
  const playing = useSyncExternalStore(player.subscribe, () => player.getState().kind === 'playing', () => false)
  const { key } = plan
  const known = shown?.key === key && shown.state !== 'stopped'
  const latest = useRef(plan)
  latest.current = plan
  useEffect(() => {
    // Plans of one key ask for the same.
    void key
    if (known || playing) return
    const timer = setTimeout(() => {
      const file = files.get(latest.current.recording.id)
      if (file) void lookAlong(latest.current, file)
    }, wanted ? 0 : CALM_MS)
    return () => clearTimeout(timer)
  }, [key, known, playing, files, wanted])
  useEffect(() => {
    if (playing) stopLookingAlong()
  }, [playing])
  useEffect(() => player.onPosition(giveWay), [player])
  useEffect(() => stopLookingAlong, [])
  return shown?.key === key ? shown : null
}
