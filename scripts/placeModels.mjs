// Puts the model that finds faces, and the WebAssembly it runs on, where the application serves them: public/faces, not kept in git.
import { copyFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './commands.mjs'

const FILES = [
  ['@vladmandic/human/models', ['blazeface.json', 'blazeface.bin']],
  ['@tensorflow/tfjs-backend-wasm/dist', ['tfjs-backend-wasm.wasm', 'tfjs-backend-wasm-simd.wasm']],
]

export function placeModels() {
  const place = join(root, 'public', 'faces')
  mkdirSync(place, { recursive: true })
  for (const [from, names] of FILES) for (const name of names) copyFileSync(join(root, 'node_modules', from, name), join(place, name))
}

if (process.argv[1] === import.meta.filename) placeModels()
