import { branded, brandedMark } from '@/core/layout/branded'
import { layoutOf, passageOf, setupOf } from '@/core/model/edit'
import type { Brand } from '@/core/model/brand'
import type { Highlight } from '@/core/model/highlight'
import type { ImageFileId, PassageId } from '@/core/model/ids'
import { picturesOfLayouts } from '@/core/model/layout'
import { picturesOfMarks } from '@/core/model/pictureMark'
import { brandedText } from '@/core/words/brandedText'
import { withIdsOf } from '@/store/layouts'
import type { WholeRecipe } from '@/store/recipes'
import { copyOf } from '@/store/setups'
import type { EditSession } from '../edits'
import { idsInUse } from './arranging'

/** Does all that a recipe says in one step: regions (unless the setup is in use already), arrangement, colours, shapes. */
export function applyRecipe(session: EditSession, passageId: PassageId, { recipe, setup, layout, brand }: WholeRecipe, gesture: string = crypto.randomUUID()): void {
  session.change(`Recipe: ${recipe.name}`, gesture, (draft) => {
    const passage = passageOf(draft, passageId)
    const own = setupOf(draft, passage.setupId)
    if (setup && own.basedOn !== setup.id) Object.assign(own, copyOf(setup))
    const target = layoutOf(draft, passage.layoutId)
    const taken = withIdsOf(layout, idsInUse(target))
    Object.assign(target, { name: layout.name, basedOn: layout.id, ...taken })
    draft.highlight.shapes = recipe.shapes.map((s) => ({ ...s }))
    draft.highlight.brandId = brand?.id ?? null
    if (recipe.captions) draft.highlight.words.captions = recipe.captions
    if (recipe.marks) draft.highlight.marks = recipe.marks
    if (recipe.output) draft.highlight.output = recipe.output
    if (!brand) return
    paint(target, brand)
    letter(draft.highlight, brand)
  })
}

/** The pictures that applying a recipe puts into a highlight. */
export function picturesOfRecipe({ recipe, layout }: WholeRecipe): ImageFileId[] {
  return [...picturesOfLayouts([layout]), ...picturesOfMarks(recipe.marks ?? [])]
}

/** Puts every layout of a highlight into a brand's colours, and its words into those and the brand's fonts; null: nobody's, the colours stay. */
export function applyBrand(session: EditSession, brand: Brand | null): void {
  session.change(brand ? `Brand: ${brand.name}` : 'No brand', crypto.randomUUID(), (draft) => {
    draft.highlight.brandId = brand?.id ?? null
    if (!brand) return
    for (const layout of draft.layouts) paint(layout, brand)
    letter(draft.highlight, brand)
  })
}

function paint(layout: Pick<WholeRecipe['layout'], 'arrangement' | 'perShape'>, brand: Brand): void {
  layout.arrangement = branded(layout.arrangement, brand)
  for (const [shape, own] of Object.entries(layout.perShape)) layout.perShape[shape] = branded(own, brand)
}

function letter(highlight: Pick<Highlight, 'words' | 'marks'>, brand: Brand): void {
  const { words } = highlight
  words.captions.style = brandedText(words.captions.style, brand, 'captions')
  for (const title of words.titles) title.style = brandedText(title.style, brand, 'title')
  highlight.marks = highlight.marks.map((m) => brandedMark(m, brand))
}
