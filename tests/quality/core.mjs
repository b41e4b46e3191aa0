// The core, as one module that Node can run.
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { mkdirSync } from 'node:fs'
import { build } from 'rolldown'
import { root } from '../../scripts/commands.mjs'

/** Bundles a file of `src/core` and gives what it exports. */
export async function core(path) {
  const file = join(root, 'tests', '.made', `${path.replaceAll('/', '-')}.mjs`)
  mkdirSync(join(root, 'tests', '.made'), { recursive: true })
  await build({ input: join(root, 'src', 'core', `${path}.ts`), output: { file, format: 'esm' }, logLevel: 'silent' })
  return import(pathToFileURL(file).href)
}
