import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { expect, it } from 'vitest'

const sources = ['src/features', 'src/shared'].flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => join(folder, name)),
)
const rooms = sources.filter((path) => path.endsWith('wording.ts')).map((path) => dirname(path))

it.each(rooms)('every sentence of %s/wording.ts is said somewhere in it', (room) => {
  const [, object = ''] = readFileSync(join(room, 'wording.ts'), 'utf8').split('export const wording = {')
  const keys = [...object.matchAll(/^ {2}(\w+):/gm)].map(([, key]) => key ?? '')
  const code = sources
    .filter((path) => /\.tsx?$/.test(path) && !relative(room, path).startsWith('..') && !path.endsWith('wording.ts'))
    .map((path) => readFileSync(path, 'utf8'))
    .join('\n')
  const said = new Set([...code.matchAll(/\bwording\.(\w+)/g)].map(([, key]) => key))
  expect(keys.filter((key) => !said.has(key))).toEqual([])
})
