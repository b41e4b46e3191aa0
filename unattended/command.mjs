// What the commands without a person have in common: how they are called, how they tell, how they end.
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { parseArgs } from 'node:util'

export const EXIT = { made: 0, someFailed: 1, usage: 2, interrupted: 130 }

/** A fault of the call or the machine that a person can put right. */
export class Unusable extends Error {}

/** A path as the person means it, who need not be in this package's folder as npm's scripts are. */
export const fromHere = (path) => path && resolve(process.env.INIT_CWD ?? process.cwd(), path)

/**
 * The options and files of a call; `needed`: options that cannot be left out. Prints `help` and ends where that is
 * asked for.
 */
export function readCall(help, options, needed, allowPositionals = false) {
  let parsed
  try {
    parsed = parseArgs({
      allowPositionals,
      options: { ...options, chromium: { type: 'string' }, help: { type: 'boolean', default: false } },
    })
  } catch (error) {
    throw new Unusable(`${error.message}\n\n${help}`)
  }
  const { values, positionals } = parsed
  if (values.help) {
    process.stdout.write(help)
    process.exit(EXIT.made)
  }
  if (allowPositionals && positionals.length === 0) throw new Unusable(`Which highlight?\n\n${help}`)
  for (const name of needed) if (!values[name]) throw new Unusable(`--${name} is missing\n\n${help}`)
  const files = positionals.map(fromHere)
  for (const path of files) if (!existsSync(path)) throw new Unusable(`there is no file ${path}`)
  return { values, files }
}

/** A whole number out of an option. */
export function wholeNumber(name, value, least, most) {
  const n = Number(value)
  if (!Number.isInteger(n) || n < least || n > most) throw new Unusable(`--${name} takes ${least} to ${most}`)
  return n
}

/** Tells of something as a JSON object on a line of its own. */
export const say = (event, what = {}) => process.stdout.write(`${JSON.stringify({ event, ...what })}\n`)

/** Runs a command; its exit code, if it gives one. A call that makes no sense ends here, in words. */
export async function runCommand(main) {
  // Until it has said how it ended it has not ended well.
  process.exitCode = EXIT.someFailed
  try {
    process.exitCode = await main()
  } catch (error) {
    if (!(error instanceof Unusable)) throw error
    process.stderr.write(`${error.message}\n`)
    process.exit(EXIT.usage)
  }
}
