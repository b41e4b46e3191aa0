import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const MAX_LINES = 8
const MAX_COLUMNS = 120

/** Paragraphs and items of lists of a Markdown file; tables, code and headings are none. */
function paragraphsOf(text: string): string[] {
  return text
    .replace(/^```[\s\S]*?^```$/gm, '')
    .split(/\n\s*\n|\n(?=\s*(?:[-*]|\d+\.)\s)/)
    .filter((block) => !/^\s*(?:\||#|<|!)/.test(block))
}

it.each(readdirSync('docs').filter((name) => name.endsWith('.md')))('docs/%s has no wall of text', (name) => {
  const paragraphs = paragraphsOf(readFileSync(join('docs', name), 'utf8'))
  const walls = paragraphs.filter((p) => {
    const lines = p.trim().split('\n')
    return lines.length > MAX_LINES || lines.some((line) => line.length > MAX_COLUMNS && line.includes(' '))
  })
  expect(walls).toEqual([])
})
