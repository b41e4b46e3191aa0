'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { Outlet } from '@/core/model/outlet'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { binKept, changeKept, duplicateKept, kept } from '@/store/rack'
import { formatBytes, formatSize } from '@/ui/format'
import { OutletDialog } from './OutletDialog'
import { OutletDiagram } from './OutletDiagram'
import { RackRow, RowLine } from './RackRow'
import type { Exporter } from './useRackFiles'
import { wording } from './wording'

export function OutletRows({ onExport }: { onExport: Exporter }) {
  const outlets = useLiveQuery(() => kept('outlet'))
  const [editing, setEditing] = useState<Outlet | null>(null)
  return (
    <>
      {outlets?.map((outlet) => (
        <RackRow
          key={outlet.id}
          name={outlet.name}
          tags={outlet.tags}
          diagram={<OutletDiagram outlet={outlet} height={92} />}
          onChange={(change) => void changeKept('outlet', outlet.id, change)}
          onExport={() => onExport({ outlet: [outlet] }, outlet.name)}
          onDuplicate={() => void duplicateKept('outlet', outlet)}
          onBin={(deleted) => void binKept('outlet', outlet.id, deleted)}
          binned={wording.isInTheBin(outlet.name)}
          onEdit={() => setEditing(outlet)}
        >
          <RowLine>
            {formatSize(outlet.shape)} ·{' '}
            {outlet.longestMicros === null
              ? wording.anyLength
              : wording.atMostS(outlet.longestMicros, MICROS_PER_SECOND)}{' '}
            · {outlet.largestBytes === null ? wording.anySize : wording.atMost(formatBytes(outlet.largestBytes))}
          </RowLine>
          <RowLine>
            {outlet.zones.length === 0
              ? wording.coversNothing
              : wording.coversOfList(outlet.zones.map((z) => z.name).join(', '))}
          </RowLine>
        </RackRow>
      ))}
      {editing && <OutletDialog outlet={editing} onClose={() => setEditing(null)} />}
    </>
  )
}
