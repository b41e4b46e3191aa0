// What the commands without a person have in common: what is to be made of highlights, and how they end.
import { readFileSync } from 'node:fs'
import { Unusable } from './engine.mjs'

export const EXIT = { made: 0, someFailed: 1, usage: 2, interrupted: 130 }

/** For `parseArgs` of node:util. */
export const WISH_OPTIONS = { shape: { type: 'string' }, preset: { type: 'string' }, 'back-end': { type: 'string' } }

export const WISH_HELP = `  --shape tall,square   shapes to make (default: those of the highlight)
  --preset <file>       render settings to use instead of the highlight's, a JSON file; see docs/unattended.md
  --back-end <name>     what draws: planes or canvas (default: what is quicker here)`

/** The wish as src/core/output/unattended.ts reads it. */
export function wishOf({ shape, preset, 'back-end': backEnd }) {
  return { shapes: shape === undefined ? null : shape.split(',').map((s) => s.trim()).filter(Boolean), output: preset === undefined ? {} : readPreset(preset), backEnd: backEnd ?? null }
}

function readPreset(path) {
  try {
    const read = JSON.parse(readFileSync(path, 'utf8'))
    return read.output ?? read
  } catch (error) {
    throw new Unusable(`the preset ${path} cannot be read: ${error.message}`)
  }
}

/** Says why a call cannot be begun, and ends it. */
export function endUnusable(error, help) {
  if (error instanceof Unusable || error.code?.startsWith?.('ERR_PARSE_ARGS')) {
    process.stderr.write(`${error.message}\n${error instanceof Unusable ? '' : `\n${help}`}`)
    process.exit(EXIT.usage)
  }
  throw error
}
