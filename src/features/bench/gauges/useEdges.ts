import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { toEvenPixels, toFractions } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Known } from '@/core/findings/findings'
import { recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Recording } from '@/core/model/recording'
import type { Region } from '@/core/model/region'
import { useBenchContext, useEdit } from '../benchContext'
import { lookAt, looks, tightened } from '../frame/looks'

/** A recording is looked at for borders when nothing has changed for this long, nobody has gone to another place and nothing plays; regions of one that has been seen, sooner. */
const CALM_MS = 9000
const REST_MS = 600

/** Bounds of regions without border and black, as far as recordings have been looked at; kept up to date as regions move. */
export function useEdges(): Known['edges'] {
  const { files, player } = useBenchContext()
  const edit = useEdit()
  const regions = useMemo(() => regionsIn(edit), [edit])
  const [known, setKnown] = useState<ReadonlyMap<string, Rect>>(new Map())
  const playing = useSyncExternalStore(player.subscribe, () => player.getState().kind === 'playing', () => false)
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
      const seen = looks.getState()[recording.id]?.kind === 'seen' && (await tightened(recording.id, toEvenPixels(first.region.bounds, recording.video)))
      if (!seen && (!file || !(await lookAt(recording, file, latest.current.edit, false)))) return
      const found = await Promise.all(latest.current.wanted.filter((w) => w.recording.id === recording.id).map(async (w) => [keyOf(w), await tightBounds(w)] as const))
      if (live) setKnown((before) => new Map([...before, ...found]))
    }
    const wait = () => setTimeout(() => void look(), looks.getState()[recording.id]?.kind === 'seen' ? REST_MS : CALM_MS)
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
  return useMemo(() => new Map(regions.flatMap((r) => (known.has(keyOf(r)) ? [[r.region.id as string, known.get(keyOf(r)) as Rect]] : []))), [regions, known])
}

interface OfRecording {
  recording: Recording
  region: Region
}

const keyOf = ({ recording, region }: OfRecording) => `${recording.id} ${region.id} ${Object.values(region.bounds).join(' ')}`

/** A region's bounds without border and black, fractions of the frame; the bounds themselves where there is neither. */
async function tightBounds({ recording, region }: OfRecording): Promise<Rect> {
  const pixels = toEvenPixels(region.bounds, recording.video)
  const tight = await tightened(recording.id, pixels)
  return tight ? toFractions(tight, recording.video) : region.bounds
}

/** Regions that somebody has set, with the recording they are seen in. */
function regionsIn(edit: Edit): OfRecording[] {
  const used = new Map(edit.highlight.passages.map((p) => [`${p.recordingId} ${p.setupId}`, p]))
  return [...used.values()].flatMap(({ recordingId, setupId }) => {
    const setup = setupOf(edit, setupId)
    const recording = recordingOf(edit, recordingId)
    return setup.isGuess ? [] : setup.regions.filter((r) => r.outline.mask.kind === 'rectangle' && r.role !== 'whole').map((region) => ({ recording, region }))
  })
}
