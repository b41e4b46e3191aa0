'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import type { Setup } from '@/core/model/setup'
import { binSetup, changeSetup, keepSetup, keptSetups, setupUses } from '@/store/setups'
import { SetupDiagram } from '@/ui/SetupDiagram'
import { RackRow, RowLine } from './RackRow'
import type { Exporter } from './useRackFiles'
import { wording } from './wording'

export function SetupRows({ onExport }: { onExport: Exporter }) {
  const setups = useLiveQuery(keptSetups)
  const uses = useLiveQuery(setupUses)
  return setups?.map((setup) => (
    <RackRow
      key={setup.id}
      name={setup.name}
      tags={setup.tags}
      diagram={<SetupDiagram regions={setup.regions} width={144} />}
      uses={uses?.get(setup.id) ?? []}
      onChange={(change) => void changeSetup(setup.id, change)}
      onExport={() => onExport({ setup: [setup] }, setup.name)}
      onDuplicate={() => void keepSetup({ ...contentOf(setup), name: `${setup.name} copy` })}
      onBin={(deleted) => void binSetup(setup.id, deleted)}
      binned={wording.isInTheBinHighlightsKeep(setup.name)}
    >
      <RowLine>
        {setup.regions.map((r) => r.name).join(', ')} ·{' '}
        {setup.fingerprint ? wording.recognisedByItself : wording.notRecognisedByItself}
      </RowLine>
    </RackRow>
  ))
}

const contentOf = ({ name, regions, tags, fingerprint }: Setup) => ({ name, regions, tags, fingerprint })
