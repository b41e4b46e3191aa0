import { isGuessedAt } from '@/core/model/setup'
import type { HighlightId } from '@/core/model/ids'
import { loadEdit } from '@/store/highlights'
import { recipeByItself } from '@/store/recipes'
import { highlightsOf, settleResemblance, type OpenQuestion } from '@/store/resemblances'
import { applyToHighlight } from './layOutClip'

/**
 * Gives every highlight of a recording in which nobody has placed anything what a sure match gives: the setup's
 * regions, and its recipe where that is used by itself. `except` is left as it is. Gives how many were laid out.
 */
export async function acceptResemblance({ recording, setup }: OpenQuestion, except?: HighlightId): Promise<number> {
  const recipe = await recipeByItself(setup.id)
  let done = 0
  for (const highlight of await highlightsOf(recording.id)) {
    if (highlight.id === except) continue
    const loaded = await loadEdit(highlight.id)
    const own = loaded.ok && loaded.edit.setups.find((s) => s.id === highlight.passages[0]?.setupId)
    if (own && isGuessedAt(own) && (await applyToHighlight(highlight, { recipe, setup }))) done++
  }
  await settleResemblance(recording.id)
  return done
}
