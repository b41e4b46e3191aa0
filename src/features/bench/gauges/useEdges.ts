import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Measurements } from '@/core/findings/findings'
import { useBenchContext, useCalmEdit } from '../benchContext'
import { lookAt, looks, sceneKey, tightened } from '@/shared/looks/looks'
import { regionsIn, tightBounds, type SeenRegion } from '@/shared/looks/edges'

/**
 * A recording is looked at for borders when nothing has changed for this long, nobody has gone to another place and
 * nothing plays; regions of one that has been seen, sooner.
 */
const CALM_MS = 9000
const REST_MS = 600

/**
 * Bounds of regions without border and black, as far as scenes have been looked at; kept up to date as regions
 * move.
 */
export function useEdges(): Measurements['edges'] {
  const { files, player } = useBenchContext()
  const edit = useCalmEdit()
  const regions = useMemo(() => regionsIn(edit), [edit])
  const [known, setKnown] = useState<ReadonlyMap<string, Rect>>(new Map())
  const playing = useSyncExternalStore(
    player.subscribe,
    () => player.getState().kind === 'playing',
    () => false,
  )
  const wanted = regions.filter((r) => !known.has(keyOf(r)))
  const next = wanted[0]
  const nextKey = next ? keyOf(next) : ''
  const latest = useRef({ edit, wanted })
  latest.current = { edit, wanted }
  useEffect(() => {
    const [first] = latest.current.wanted
    if (!first || nextKey === '' || playing) return
    const { scene } = first
    const key = sceneKey(scene)
    let live = true
    const look = async () => {
      const file = files.get(scene.recording.id)
      const seen =
        looks.getState()[key]?.kind === 'seen' &&
        (await tightened(scene, toEvenPixels(first.region.bounds, scene.recording.video)))
      if (!seen && (!file || !(await lookAt(scene, file, latest.current.edit, 'in-passing')))) return
      const found = await Promise.all(
        latest.current.wanted
          .filter((w) => sceneKey(w.scene) === key)
          .map(async (w) => [keyOf(w), await tightBounds(w)] as const),
      )
      if (live) setKnown((before) => new Map([...before, ...found]))
    }
    const wait = () => setTimeout(() => void look(), looks.getState()[key]?.kind === 'seen' ? REST_MS : CALM_MS)
    let timer = wait()
    const leave = player.onPosition(() => {
      clearTimeout(timer)
      timer = wait()
    })
    return () => {
      live = false
      clearTimeout(timer)
      leave()
    }
  }, [nextKey, playing, files, player])
  return useMemo(
    () =>
      new Map(
        regions.flatMap((r) => (known.has(keyOf(r)) ? [[r.region.id as string, known.get(keyOf(r)) as Rect]] : [])),
      ),
    [regions, known],
  )
}

const keyOf = ({ scene, region }: SeenRegion) =>
  `${sceneKey(scene)} ${region.id} ${Object.values(region.bounds).join(' ')}`
