import type { Merge, SetupFileResult } from '@/core/interchange/setupFile'

/** What came of reading a file of setups, line by line. */
export function importWords(fileName: string, read: SetupFileResult, merge: Merge | null): string {
  if (!read.ok) {
    const why = { 'too-large': 'is too large to be a file of setups', 'not-json': 'is not a file of setups: it is not JSON', 'not-setups': 'is not a file of setups that Brimble wrote' }[read.reason]
    return `“${fileName}” ${why}. Nothing was changed.`
  }
  const added = merge?.add.length ?? 0
  const same = merge?.same.length ?? 0
  const lines = [`“${fileName}”: ${added === 0 ? 'nothing new' : `${added} ${added === 1 ? 'setup' : 'setups'} added`}${same > 0 ? `, ${same} there already` : ''}.`]
  for (const { index, reasons } of read.problems) lines.push(`Setup ${index + 1} of the file was left out: ${reasons[0] ?? 'it cannot be read'}.`)
  return lines.join('\n')
}
