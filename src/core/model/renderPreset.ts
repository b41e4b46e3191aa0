import type { z } from 'zod'
import { renderPresetId } from './ids'
import { outputChoice } from './outputChoice'
import { recordBase, title } from './record'

/** Render settings that were given a name. */
export const renderPreset = recordBase.extend({ id: renderPresetId, name: title, output: outputChoice })
export type RenderPreset = z.infer<typeof renderPreset>
