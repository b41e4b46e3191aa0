// Puts what comes out of packages where the application serves it, not kept in git: the model that finds faces and
// the WebAssembly it runs
// on into public/faces, fonts for words on the picture into public/fonts, the decoder that lines words up into
// public/aligner, the kernels of planes and sound into public/kernel.
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { root } from './commands.mjs'
import { compileKernel, KERNELS } from './compileKernel.mjs'

const FACES = [
  ['@vladmandic/human/models', ['blazeface.json', 'blazeface.bin']],
  ['@tensorflow/tfjs-backend-wasm/dist', ['tfjs-backend-wasm.wasm', 'tfjs-backend-wasm-simd.wasm']],
]

/** Families as core/model/fonts names them, and the style sheets that say which file holds which letters. */
const FONTS = {
  'Instrument Sans': '@fontsource-variable/instrument-sans/index.css',
  Archivo: '@fontsource-variable/archivo/index.css',
  Anton: '@fontsource/anton/400.css',
  Fredoka: '@fontsource-variable/fredoka/index.css',
  Lora: '@fontsource-variable/lora/index.css',
  Caveat: '@fontsource-variable/caveat/index.css',
  'JetBrains Mono': '@fontsource-variable/jetbrains-mono/index.css',
  'Noto Sans': '@fontsource-variable/noto-sans/index.css',
  'Noto Sans Arabic': '@fontsource-variable/noto-sans-arabic/index.css',
  'Noto Sans Hebrew': '@fontsource-variable/noto-sans-hebrew/index.css',
  'Noto Sans JP': '@fontsource-variable/noto-sans-jp/index.css',
  'Noto Sans SC': '@fontsource-variable/noto-sans-sc/index.css',
  'Noto Sans KR': '@fontsource-variable/noto-sans-kr/index.css',
  // Of the colour fonts the kind (COLR version 0) that canvases draw everywhere, without a GPU too.
  Twemoji: 'twemoji-colr-font/twemoji.css',
}

/** For style sheets that do not say which letters a font is for: without it every text would load it. */
const RANGES = {
  Twemoji:
    'U+A9, U+AE, U+203C, U+2049, U+20E3, U+2122, U+2139, U+2194-21AA, U+231A-23FF, U+24C2, U+25AA-25FE, U+2600-27BF, U+2934-2935, U+2B05-2B55, U+3030, U+303D, U+3297, U+3299, U+200D, U+FE0F, U+1F000-1FAFF, U+E0020-E007F',
}

/** The decoder that lines words up with sound, and its model of English. */
const ALIGNER = ['soundswallower.web.wasm']
const ENGLISH = [
  ...['dict.txt', 'feat_params.json', 'mdef', 'means', 'noisedict.txt', 'sendump', 'transition_matrices'],
  ...['variances', 'README.txt'],
]

const packages = join(root, 'node_modules')

function placeFaces() {
  const place = join(root, 'public', 'faces')
  mkdirSync(place, { recursive: true })
  for (const [from, names] of FACES)
    for (const name of names) copyFileSync(join(packages, from, name), join(place, name))
}

function placeAligner() {
  const [from, place] = [join(packages, 'soundswallower'), join(root, 'public', 'aligner')]
  mkdirSync(join(place, 'en-us'), { recursive: true })
  for (const name of ALIGNER) copyFileSync(join(from, name), join(place, name))
  for (const name of ENGLISH) copyFileSync(join(from, 'model', 'en-us', name), join(place, 'en-us', name))
}

/** The font files, and `faces.json`: what media/fonts/loadFonts reads to know them. */
function placeFonts() {
  const place = join(root, 'public', 'fonts')
  rmSync(place, { recursive: true, force: true })
  mkdirSync(place, { recursive: true })
  const faces = Object.entries(FONTS).flatMap(([family, sheet]) => {
    const path = join(packages, sheet)
    const blocks = readFileSync(path, 'utf8').match(/@font-face\s*\{[^}]*\}/g) ?? []
    if (blocks.length === 0) throw new Error(`${sheet}: no font in it`)
    return blocks.map((block) => {
      const one = (pattern) => pattern.exec(block)?.[1]?.trim()
      const file = one(/url\(["']?([^)"']+\.woff2)["']?\)/)
      copyFileSync(join(path, '..', file), join(place, basename(file)))
      return {
        family,
        weight: one(/font-weight:\s*([^;]+)/),
        unicodeRange: one(/unicode-range:\s*([^;]+)/) ?? RANGES[family] ?? 'U+0-10FFFF',
        file: basename(file),
      }
    })
  })
  writeFileSync(join(place, 'faces.json'), JSON.stringify(faces))
}

export async function placeAssets() {
  placeFaces()
  placeFonts()
  placeAligner()
  for (const name of KERNELS) await compileKernel(name, join(root, 'public', 'kernel', `${name}.wasm`))
}

if (process.argv[1] === import.meta.filename) await placeAssets()
