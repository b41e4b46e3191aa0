// What is to be made of the highlights of a call.
import { readFileSync } from 'node:fs'
import { fromHere, Unusable } from './command.mjs'

/** For `readCall` of command.mjs. */
export const WISH_OPTIONS = { shape: { type: 'string' }, preset: { type: 'string' }, 'back-end': { type: 'string' } }

export const WISH_HELP = `  --shape tall,square   shapes to make (default: those of the highlight)
  --preset <file>       render settings to use instead of the highlight's: a preset saved as a file, or one by hand; see docs/unattended.md
  --back-end <name>     what draws: planes, gpu or canvas (default: what is quicker here)`

/** The wish as src/core/output/unattended.ts reads it. */
export function wishOf({ shape, preset, 'back-end': backEnd }) {
  return {
    shapes:
      shape === undefined
        ? null
        : shape
            .split(',')
            .map((s) => s.trim())
            .filter(Boolean),
    output: preset === undefined ? {} : readPreset(fromHere(preset)),
    backEnd: backEnd ?? null,
  }
}

function readPreset(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch (error) {
    throw new Unusable(`the preset ${path} cannot be read: ${error.message}`)
  }
}
