import type { Command } from './command'
import * as changes from './changes'
import * as feeds from './feeds'
import * as highlight from './highlight'
import * as layouts from './layouts'
import * as marks from './marks'
import * as passages from './passages'
import * as recipes from './recipes'
import * as regions from './regions'
import * as remedies from './remedies'
import * as sound from './sound'
import * as words from './words'

const isCommand = (value: unknown): value is Command<never> =>
  typeof value === 'function' && 'why' in value && 'apply' in value

/** Everything that can be done to an edit, by its id. */
export const COMMANDS: ReadonlyMap<string, Command<never>> = new Map(
  [changes, feeds, highlight, layouts, marks, passages, recipes, regions, remedies, sound, words]
    .flatMap((room) => Object.values(room).filter(isCommand))
    .map((c) => [c.id, c]),
)
