import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Measurements } from '@/core/findings/findings'
import { useBenchContext, useEdit } from '../benchContext'
import { lookAt, looks, tightened } from '@/shared/looks/looks'
import { regionsIn, tightBounds, type SeenRegion } from '@/shared/looks/edges'

/**
 * A recording is looked at for borders when nothing has changed for this long, nobody has gone to another place and
 * nothing plays; regions of one that has been seen, sooner.
 */
const CALM_MS = 9000
const REST_MS = 600

/**
 * Bounds of regions without border and black, as far as recordings have been looked at; kept up to date as regions
 * move.
 */
export function useEdges(): Measurements['edges'] {
  const { files, player } = useBenchContext()
  const edit = useEdit()
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
    const { recording } = first
    let live = true
    const look = async () => {
      const file = files.get(recording.id)
      const seen =
        looks.getState()[recording.id]?.kind === 'seen' &&
        (await tightened(recording.id, toEvenPixels(first.region.bounds, recording.video)))
      if (!seen && (!file || !(await lookAt(recording, file, latest.current.edit, 'in-passing')))) return
      const found = await Promise.all(
        latest.current.wanted
          .filter((w) => w.recording.id === recording.id)
          .map(async (w) => [keyOf(w), await tightBounds(w)] as const),
      )
      if (live) setKnown((before) => new Map([...before, ...found]))
    }
    const wait = () =>
      setTimeout(() => void look(), looks.getState()[recording.id]?.kind === 'seen' ? REST_MS : CALM_MS)
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

const keyOf = ({ recording, region }: SeenRegion) =>
  `${recording.id} ${region.id} ${Object.values(region.bounds).join(' ')}`
