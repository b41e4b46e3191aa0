import { readFile } from 'node:fs/promises'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startKernel, type Kernel } from '@/media/planes/kernel'
import { compileKernel } from '../../scripts/compileKernel.mjs'

/** The kernel, compiled from what is there now. */
export async function compiledKernel(): Promise<Kernel> {
  const file = join(mkdtempSync(join(tmpdir(), 'brimble-kernel-')), 'planes.wasm')
  await compileKernel('planes', file)
  return startKernel(await readFile(file))
}
