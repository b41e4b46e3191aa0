'use client'

import { useLiveQuery } from 'dexie-react-hooks'
import { binKept, changeKept, duplicateKept } from '@/store/rack'
import { keptRecipes } from '@/store/recipes'
import { formatSize } from '@/ui/format'
import { ByItselfFields } from '@/shared/ByItselfFields'
import { LayoutDiagram } from '@/ui/LayoutDiagram'
import { RackRow, RowLine } from './RackRow'
import type { Exporter } from './useRackFiles'
import { wording } from './wording'

export function RecipeRows({ onExport }: { onExport: Exporter }) {
  const recipes = useLiveQuery(keptRecipes)
  return recipes?.map(({ recipe, setup, layout, brand }) => (
    <RackRow
      key={recipe.id}
      name={recipe.name}
      tags={recipe.tags}
      diagram={<LayoutDiagram arrangement={layout.arrangement} height={92} />}
      onChange={(change) => void changeKept('recipe', recipe.id, change)}
      onExport={() => onExport({ recipe: [recipe] }, recipe.name)}
      onDuplicate={() => void duplicateKept('recipe', { ...recipe, byItself: false, cutsScenes: false })}
      onBin={(deleted) => void binKept('recipe', recipe.id, deleted)}
      binned={wording.isInTheBinWhatIt(recipe.name)}
    >
      <RowLine>
        {setup ? wording.setup(setup.name) : wording.anySetup} · layout “{layout.name}” ·{' '}
        {brand ? brand.name : wording.noBrand} · {recipe.shapes.map(formatSize).join(', ')}
      </RowLine>
      {setup && (
        <ByItselfFields
          setupName={setup.name}
          value={recipe}
          onChange={(change) => void changeKept('recipe', recipe.id, change)}
        />
      )}
    </RackRow>
  ))
}
