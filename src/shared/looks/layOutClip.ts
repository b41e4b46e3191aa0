import { recognise } from '@/core/detect/regions/fingerprint'
import type { Highlight } from '@/core/model/highlight'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import { wholeRecording } from '@/core/model/wholeRecording'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { changeHighlight } from '@/shared/changeHighlight'
import { createHighlight } from '@/store/highlights'
import { keptRecipes, recipeByItself } from '@/store/recipes'
import { keptImages } from '@/store/imageFiles'
import { keptSetups } from '@/store/setups'
import type { WholeRecipe } from '@/core/model/recipe'
import { applySetup } from '@/edit/regions'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { addRecords } from '@/edit/records'
import { lookAt } from './looks'

/** Longer recordings are to be cut from, not to be put out as they are. */
export const LONGEST_CLIP_MICROS = 180 * MICROS_PER_SECOND

/** A clip that was laid out by itself, and by which recipe. */
export interface LaidOut {
  highlight: Highlight
  recipeName: string
}

/**
 * Makes a highlight of all of a short recording, laid out by the recipe that its setup has, where that is recognised
 * for sure and the recipe is to be used by itself. Null, with nothing made, for any other.
 */
export async function layOutClip(recording: Recording, file: Blob): Promise<LaidOut | null> {
  if (recording.durationMicros > LONGEST_CLIP_MICROS) return null
  if (!(await keptRecipes()).some((r) => r.recipe.byItself && r.setup?.fingerprint)) return null
  const setups = (await keptSetups()).filter((s) => s.fingerprint)
  const whole = wholeRecording(recording)
  const [setup] = whole.setups
  const look = setup && (await lookAt({ recording, setupId: setup.id }, file, whole, 'by-itself'))
  const match = look && recognise<Setup>(look.fingerprint, setups)
  if (match?.kind !== 'sure') return null
  const recipe = await recipeByItself(match.match.id)
  if (!recipe) return null
  const highlight = await createHighlight(recording, { name: recording.name, outMicros: recording.durationMicros })
  await applyToHighlight(highlight, { recipe, setup: match.match })
  return { highlight, recipeName: recipe.recipe.name }
}

/**
 * Gives a highlight a setup's regions and lays it out by a recipe, as far as there are any, as a step of its own
 * history. False, with nothing changed, when it cannot be opened or kept.
 */
export async function applyToHighlight(
  { id }: Pick<Highlight, 'id'>,
  { recipe, setup }: { recipe: WholeRecipe | null; setup: Setup | null },
): Promise<boolean> {
  const pictures = recipe ? await keptImages(picturesOfRecipe(recipe)) : []
  return changeHighlight(id, (session) => {
    const [passage] = session.value.highlight.passages
    if (!passage) return
    const gesture = crypto.randomUUID()
    addRecords(session, { imageFiles: pictures })
    if (setup) applySetup(session, { setupId: passage.setupId, kept: setup }, gesture)
    if (recipe) applyRecipe(session, { passageId: passage.id, whole: recipe }, gesture)
  })
}
