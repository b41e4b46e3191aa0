/** Why the reader of foreign files gave a file up; see media/read/readForeign. */
export function unreadMessage(fileName: string, reason: 'too-slow' | 'broken'): string {
  const why = reason === 'too-slow' ? 'takes far longer to read than a file of its size should' : 'cannot be read'
  return `“${fileName}” ${why}: it is damaged, or made to be slow. Nothing was changed.`
}
