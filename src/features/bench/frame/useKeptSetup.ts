import { useCallback } from 'react'
import type { WholeRecipe } from '@/core/model/recipe'
import type { Setup } from '@/core/model/setup'
import { recipeByItself } from '@/store/recipes'
import { applySetup } from '@/edit/regions'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { useBenchContext, useParts } from '../benchContext'
import { bringImages } from '../bringImages'

/**
 * Gives the passage worked on a kept setup's regions and, where the setup has a recipe that is used by itself, what
 * that lays out: the same whoever says that it is this setup, in one step. The recipe is given, null for none.
 */
export function useKeptSetup(): (kept: Setup) => Promise<WholeRecipe | null> {
  const bench = useBenchContext()
  const { setup, passage } = useParts()
  const { id: setupId } = setup
  const { id: passageId } = passage
  return useCallback(
    async (kept) => {
      const whole = await recipeByItself(kept.id)
      if (whole) await bringImages(bench, picturesOfRecipe(whole))
      const gesture = crypto.randomUUID()
      applySetup(bench.session, { setupId, kept }, gesture)
      if (whole) applyRecipe(bench.session, { passageId, whole }, gesture)
      return whole
    },
    [bench, setupId, passageId],
  )
}
