import type { SetupId } from '@/core/model/ids'
import { readRecord } from '@/core/model/migrate'
import type { Recipe, WholeRecipe } from '@/core/model/recipe'
import { database } from './database'
import { kept } from './rack'

/** Every recipe whose layout is still there, by name. */
export async function keptRecipes(): Promise<WholeRecipe[]> {
  const recipes = await kept('recipe')
  const whole = await Promise.all(recipes.map(wholeOf))
  return whole.flatMap((w) => (w ? [w] : []))
}

async function wholeOf(recipe: Recipe): Promise<WholeRecipe | null> {
  const { setups, layouts, brands } = database()
  const layout = readRecord('layout', await layouts.get(recipe.layoutId))
  if (!layout.ok || layout.record.deletedAt) return null
  const setup = recipe.setupId && readRecord('setup', await setups.get(recipe.setupId))
  const brand = recipe.brandId && readRecord('brand', await brands.get(recipe.brandId))
  return {
    recipe,
    layout: layout.record,
    setup: setup && setup.ok && !setup.record.deletedAt ? setup.record : null,
    brand: brand && brand.ok && !brand.record.deletedAt ? brand.record : null,
  }
}

/** The recipe by which recordings that are recognised as having a setup are laid out without being asked. */
export async function recipeByItself(setupId: SetupId): Promise<WholeRecipe | null> {
  return (await keptRecipes()).find((r) => r.recipe.byItself && r.recipe.setupId === setupId) ?? null
}
