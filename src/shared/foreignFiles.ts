/** Why the reader of foreign files gave a file up; see media/read/readForeign. */
export function unreadMessage(fileName: string, reason: 'too-slow' | 'broken'): string {
  const why = reason === 'too-slow' ? 'takes far longer to read than a file of its size should' : 'cannot be read'
  return `“${fileName}” ${why}: it is damaged, or made to be slow. Nothing was changed.`
}

/** Why a picture was not taken. */
export function pictureRefusal(fileName: string, reason: 'not-a-picture' | 'too-large'): string {
  if (reason === 'too-large')
    return `“${fileName}” is too large: pictures have at most 60 MB, 20,000 pixels a side and 120 million in all. Nothing was changed.`
  return `“${fileName}” is not a picture that can be shown here: PNG, JPEG, WebP, GIF and SVG are. Nothing was changed.`
}
