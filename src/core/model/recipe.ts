import { z } from 'zod'
import type { Brand } from './brand'
import { brandId, layoutId, recipeId, setupId } from './ids'
import { outputChoice } from './outputChoice'
import type { Layout } from './layout'
import { MAX_MARKS, pictureMark } from './pictureMark'
import { recordBase, title } from './record'
import type { Setup } from './setup'
import { shape } from './shape'
import { tag } from './tag'
import { captions } from './words'

/** What belongs together for a kind of highlight: applied in one action. */
export const recipe = recordBase.extend({
  id: recipeId,
  name: title,
  tags: z.array(tag).max(20).default([]),
  /** The kept setup that it is for; null for any. */
  setupId: setupId.nullable(),
  layoutId,
  brandId: brandId.nullable(),
  shapes: z.array(shape).min(1).max(12),
  /** How captions are shown; null leaves them as they are. */
  captions: captions.nullable().default(null),
  /** What is put over the picture; null leaves it as it is. */
  marks: z.array(pictureMark).max(MAX_MARKS).nullable().default(null),
  /** How it is rendered; null leaves that as it is. */
  output: outputChoice.nullable().default(null),
  /** Recordings recognised as having the setup are laid out by it without being asked. */
  byItself: z.boolean().default(false),
  /**
   * A new highlight in which the setup is one of several scenes is cut into them without being asked; absent: it is
   * not.
   */
  cutsScenes: z.boolean().optional(),
})

export type Recipe = z.infer<typeof recipe>

/** A recipe with the records that it binds; what has been thrown away since is null. */
export interface WholeRecipe {
  recipe: Recipe
  setup: Setup | null
  layout: Layout
  brand: Brand | null
}
