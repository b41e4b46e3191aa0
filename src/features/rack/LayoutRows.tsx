'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import { panelsOf } from '@/core/layout/tree'
import { layoutUses } from '@/store/layouts'
import { binKept, changeKept, duplicateKept, kept } from '@/store/rack'
import { LayoutDiagram } from '@/ui/LayoutDiagram'
import { RackRow, RowLine } from './RackRow'
import type { Exporter } from './useRackFiles'
import { wording } from './wording'

export function LayoutRows({ onExport }: { onExport: Exporter }) {
  const layouts = useLiveQuery(() => kept('layout'))
  const uses = useLiveQuery(layoutUses)
  return layouts?.map((layout) => (
    <RackRow
      key={layout.id}
      name={layout.name}
      tags={layout.tags}
      diagram={<LayoutDiagram arrangement={layout.arrangement} height={92} />}
      uses={uses?.get(layout.id) ?? []}
      onChange={(change) => void changeKept('layout', layout.id, change)}
      onExport={() => onExport({ layout: [layout] }, layout.name)}
      onDuplicate={() => void duplicateKept('layout', layout)}
      onBin={(deleted) => void binKept('layout', layout.id, deleted)}
      binned={wording.isInTheBinHighlights(layout.name)}
    >
      <RowLine>
        {panelsOf(layout.arrangement)
          .map((p) => p.role)
          .join(', ')}
        {Object.keys(layout.perShape).length > 0 && wording.itsOwnIn(Object.keys(layout.perShape).join(', '))}
      </RowLine>
    </RackRow>
  ))
}
