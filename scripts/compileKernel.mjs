// Compiles what lies in kernel/ to WebAssembly with SIMD; what comes out is served by the application and not kept in
// git.
import { mkdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { root } from './commands.mjs'

export const KERNELS = ['planes', 'sound']

/** Writes kernel/<name>.ts to `file`. Throws when it cannot be compiled. */
export async function compileKernel(name, file) {
  mkdirSync(dirname(file), { recursive: true })
  // Commands that install the packages load this file first.
  const { default: asc } = await import('assemblyscript/asc')
  const { error, stderr } = await asc.main([
    join(root, 'kernel', `${name}.ts`),
    '--outFile',
    file,
    '--enable',
    'simd',
    '--runtime',
    'stub',
    '--noAssert',
    '--optimizeLevel',
    '3',
    '--shrinkLevel',
    '0',
    '--converge',
    '--initialMemory',
    '16',
  ])
  if (error) throw new Error(`kernel/${name}.ts: ${error.message}\n${stderr.toString()}`)
}
