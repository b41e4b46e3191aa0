import { useEffect, useMemo, useRef, useState } from 'react'
import { DEAD_AIR_DEFAULTS, pausesIn, totalOf, type DeadAirSettings } from '@/core/cut/deadAir'
import { recordingOf, type Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { Strike } from '@/core/model/passage'
import { toDecibels } from '@/core/sound/levels'
import { inspector } from '@/media/inspect/inspector'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { useBenchContext } from '../benchContext'

/** Levels are measured in steps of this length. */
const STEP_MICROS = 10_000

/** A pause proposed to be struck out. */
export interface Pause {
  key: string
  passageId: PassageId
  strike: Strike
}

export interface DeadAir {
  settings: DeadAirSettings
  setSettings: (part: Partial<DeadAirSettings>) => void
  /** Null while the sound is being listened to. */
  pauses: Pause[] | null
  /** Output time that striking all of them out saves. */
  savedMicros: Micros
}

/** Finds the pauses in a highlight's passages; `on` starts the listening. */
export function useDeadAir(edit: Pick<Edit, 'highlight' | 'recordings'>, on: boolean): DeadAir {
  const { files } = useBenchContext()
  const [settings, setAll] = useState(DEAD_AIR_DEFAULTS)
  const [levels, setLevels] = useState<ReadonlyMap<string, Float32Array>>(new Map())
  const { passages } = edit.highlight
  const latest = useRef({ edit, levels })
  latest.current = { edit, levels }
  const wanted = on ? passages.map(levelsKey).join('|') : ''

  useEffect(() => {
    if (wanted === '') return
    let live = true
    const listen = async () => {
      for (const passage of latest.current.edit.highlight.passages) {
        const file = files.get(passage.recordingId)
        const { originMicros } = recordingOf(latest.current.edit, passage.recordingId)
        if (!live || !file || latest.current.levels.has(levelsKey(passage))) continue
        const count = Math.ceil((passage.outMicros - passage.inMicros) / STEP_MICROS)
        const [row = []] = await inspector().levels(
          `dead air ${passage.id}`,
          { id: passage.recordingId, file, originMicros },
          [{ fromMicros: passage.inMicros, stepMicros: STEP_MICROS, count }],
        )
        const decibels = Float32Array.from(row, ({ rms }) => toDecibels(rms))
        if (live) setLevels((all) => new Map(all).set(levelsKey(passage), decibels))
      }
    }
    listen().catch(quietly('listening for pauses'))
    return () => {
      live = false
    }
  }, [wanted, files])

  return useMemo(() => {
    const ready = passages.every((p) => levels.has(levelsKey(p)))
    const pauses = passages.flatMap((passage) =>
      pausesIn(passage, levels.get(levelsKey(passage)) ?? [], STEP_MICROS, settings).map((strike): Pause => ({
        key: `${passage.id} ${strike.fromMicros}`,
        passageId: passage.id,
        strike,
      })),
    )
    const savedMicros = passages.reduce(
      (sum, p) =>
        sum + (totalOf(pauses.filter((x) => x.passageId === p.id).map((x) => x.strike)) * 100) / p.speedPercent,
      0,
    )
    return {
      settings,
      setSettings: (part) => setAll((all) => ({ ...all, ...part })),
      pauses: ready ? pauses : null,
      savedMicros,
    }
  }, [passages, levels, settings])
}

function levelsKey({
  recordingId,
  inMicros,
  outMicros,
}: {
  recordingId: string
  inMicros: Micros
  outMicros: Micros
}): string {
  return `${recordingId} ${inMicros} ${outMicros}`
}
