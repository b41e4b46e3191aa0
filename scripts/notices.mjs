// `npm run notices`: writes THIRD-PARTY-NOTICES.md, with the licence of every package that ships with the application.
// Run it after each change of dependencies; `node scripts/notices.mjs --check` fails when the file is out of date.
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './commands.mjs'

const FILE = join(root, 'THIRD-PARTY-NOTICES.md')

/** What lies inside a package and has terms of its own. */
const INSIDE = {
  '@mediabunny/aac-encoder':
    'Contains the AAC encoder of FFmpeg (libavcodec) compiled to WebAssembly, under the GNU Lesser General Public License 2.1 or later. The package’s own sources say how to build it again.',
  'twemoji-colr-font': 'The pictures in the font are under the Creative Commons Attribution 4.0 licence (CC-BY 4.0).',
  '@vladmandic/human': 'Contains TensorFlow.js and Google’s BlazeFace model, both under the Apache License 2.0.',
}

const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'))
const entries = Object.entries(lock.packages)
  .filter(
    ([path, info]) =>
      path.startsWith('node_modules/') &&
      !info.dev &&
      !info.devOptional &&
      !info.optional &&
      existsSync(join(root, path)),
  )
  .map(([path]) => path)
  .sort()

/** Licence texts said once each, with the packages they go for. */
const byText = new Map()
const table = entries.map((path) => {
  const { name, version, license } = JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8'))
  const file = readdirSync(join(root, path)).find((f) => /^licen[cs]e(\.\w+)?$/i.test(f))
  const text = file
    ? readFileSync(join(root, path, file), 'utf8')
        .trim()
        .replace(/\r/g, '')
    : ''
  if (text) byText.set(text, [...(byText.get(text) ?? []), name])
  return `| ${name} | ${version} | ${license ?? 'see text'} |${INSIDE[name] ? ` ${INSIDE[name]}` : ''} |`
})
const texts = [...byText].map(([text, names]) => `## ${[...new Set(names)].join(', ')}\n\n~~~text\n${text}\n~~~\n`)
const page = `# What ships with Brimble, and its licences

Brimble itself is under the MIT licence (LICENSE). It ships with the packages below, each under its own terms. Written by \`npm run notices\`.

| package | version | licence | |
|---|---|---|---|
${[...new Set(table)].join('\n')}

${texts.join('\n')}`

if (process.argv.includes('--check')) {
  if (!existsSync(FILE) || readFileSync(FILE, 'utf8') !== page) {
    process.stderr.write('THIRD-PARTY-NOTICES.md is out of date: run npm run notices\n')
    process.exit(1)
  }
} else writeFileSync(FILE, page)
