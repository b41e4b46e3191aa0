import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import packageFile from '../../package.json'

const PLACES = ['src', 'unattended', 'scripts', 'demo', 'next.config.ts']

const textsIn = (path: string): string[] => {
  if (existsSync(path) && !/\.[a-z]+$/.test(path)) return readdirSync(path).flatMap((name) => textsIn(join(path, name)))
  return /\.(ts|tsx|mjs)$/.test(path) ? [readFileSync(path, 'utf8')] : []
}

const peersOf = (name: string): string[] => {
  const file = JSON.parse(readFileSync(join('node_modules', name, 'package.json'), 'utf8')) as {
    peerDependencies?: Record<string, string>
  }
  return Object.keys(file.peerDependencies ?? {})
}

it('every package that ships is used, or asked for by one that is', () => {
  const text = PLACES.flatMap(textsIn).join('\n')
  const names = Object.keys(packageFile.dependencies)
  const used = names.filter(
    (name) => text.includes(`'${name}'`) || text.includes(`'${name}/`) || text.includes(`${name}/`),
  )
  const peers = new Set(used.flatMap(peersOf))
  expect(names.filter((name) => !used.includes(name) && !peers.has(name))).toEqual([])
})
