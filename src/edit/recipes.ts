import { branded, brandedMark } from '@/core/layout/branded'
import { withIdsOf } from '@/core/layout/withIdsOf'
import type { Brand } from '@/core/model/brand'
import { layoutOf, passageOf, setupOf } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import type { ImageFileId, PassageId } from '@/core/model/ids'
import { picturesOfLayouts, type Layout } from '@/core/model/layout'
import { picturesOfMarks } from '@/core/model/pictureMark'
import type { WholeRecipe } from '@/core/model/recipe'
import { copyOf } from '@/core/model/setup'
import { brandedText } from '@/core/words/brandedText'
import { command } from './command'
import { idsInUse } from './layouts'

/** What several things at once are set by: recipes and brands. */

/**
 * Does all that a recipe says in one step: regions (unless the setup is in use already), arrangement, colours,
 * shapes.
 */
export const applyRecipe = command<{ passageId: PassageId; whole: WholeRecipe }>({
  id: 'apply-recipe',
  label: ({ whole }) => `Recipe: ${whole.recipe.name}`,
  apply: (draft, { passageId, whole: { recipe, setup, layout, brand } }) => {
    const { highlight } = draft
    const passage = passageOf(draft, passageId)
    const own = setupOf(draft, passage.setupId)
    if (setup && own.basedOn !== setup.id) Object.assign(own, copyOf(setup))
    const target = layoutOf(draft, passage.layoutId)
    Object.assign(target, {
      name: layout.name,
      basedOn: layout.id,
      adapts: layout.adapts,
      ...withIdsOf(layout, idsInUse(target)),
    })
    highlight.shapes = recipe.shapes.map((s) => ({ ...s }))
    highlight.brandId = brand?.id ?? null
    if (recipe.captions) highlight.words.captions = recipe.captions
    if (recipe.marks) highlight.marks = recipe.marks
    if (recipe.output) highlight.output = recipe.output
    if (!brand) return
    paint(target, brand)
    letter(highlight, brand)
  },
})

/** The pictures that applying a recipe puts into a highlight. */
export function picturesOfRecipe({ recipe, layout }: WholeRecipe): ImageFileId[] {
  return [...picturesOfLayouts([layout]), ...picturesOfMarks(recipe.marks ?? [])]
}

/**
 * Puts every layout of a highlight into a brand's colours, and its words into those and the brand's fonts; null:
 * nobody's, the colours stay.
 */
export const applyBrand = command<{ brand: Brand | null }>({
  id: 'apply-brand',
  label: ({ brand }) => (brand ? `Brand: ${brand.name}` : 'No brand'),
  apply: (draft, { brand }) => {
    draft.highlight.brandId = brand?.id ?? null
    if (!brand) return
    for (const layout of draft.layouts) paint(layout, brand)
    letter(draft.highlight, brand)
  },
})

function paint(layout: Pick<Layout, 'arrangement' | 'perShape'>, brand: Brand): void {
  layout.arrangement = branded(layout.arrangement, brand)
  for (const [shape, own] of Object.entries(layout.perShape)) layout.perShape[shape] = branded(own, brand)
}

function letter(highlight: Pick<Highlight, 'words' | 'marks'>, brand: Brand): void {
  const { words } = highlight
  words.captions.style = brandedText(words.captions.style, brand, 'captions')
  for (const title of words.titles) title.style = brandedText(title.style, brand, 'title')
  highlight.marks = highlight.marks.map((m) => brandedMark(m, brand))
}
