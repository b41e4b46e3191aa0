import type { Merge } from '@/core/interchange/mergeRack'
import { RACK_KINDS, type FiledKind, type RackFileResult } from '@/core/interchange/rackFile'

const WORDS: Record<FiledKind, [one: string, many: string]> = {
  imageFile: ['picture', 'pictures'],
  fontFile: ['font', 'fonts'],
  setup: ['setup', 'setups'],
  layout: ['layout', 'layouts'],
  brand: ['brand', 'brands'],
  outlet: ['outlet', 'outlets'],
  recipe: ['recipe', 'recipes'],
}

const counted = (n: number, kind: FiledKind) => `${n} ${WORDS[kind][n === 1 ? 0 : 1]}`

const WHY_NOT = {
  'too-large': 'is too large to be of a rack',
  'not-json': 'is not a file of a rack, or is damaged',
  'not-a-rack': 'is not a file of a rack that Brimble wrote',
  'newer-version': 'was made by a newer Brimble: update this one',
}

/** Lines that one message can hold; the rest is counted. */
const MAX_LINES = 8

/** What came of reading a file, line by line. */
export function importWords(fileName: string, read: RackFileResult, merge: Merge | null): string {
  if (!read.ok) return `“${fileName}” ${WHY_NOT[read.reason]}. Nothing was changed.`
  const added = RACK_KINDS.filter((kind) => (merge?.add.records[kind].length ?? 0) > 0).map((kind) =>
    counted(merge?.add.records[kind].length ?? 0, kind),
  )
  const same = merge?.same.length ?? 0
  const lines = [
    `“${fileName}”: ${added.length === 0 ? 'nothing new' : `${added.join(', ')} added`}${same > 0 ? `, ${same} there already` : ''}.`,
  ]
  for (const { kind, name, what, reasons } of read.remarks) {
    const it = `${WORDS[kind][0]} “${name}”`
    if (what === 'refused') lines.push(`Left out: ${it}: ${reasons[0] ?? 'it cannot be read'}.`)
    else lines.push(...reasons.map((reason) => `${what === 'repaired' ? 'Put right' : 'Look'}: ${it}: ${reason}.`))
  }
  return lines.length > MAX_LINES
    ? [...lines.slice(0, MAX_LINES), `and ${lines.length - MAX_LINES} more.`].join('\n')
    : lines.join('\n')
}
