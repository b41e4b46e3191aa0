import { tag } from '@/core/model/tag'

/** Tags as they are typed, with commas between: each once, those that cannot be tags left out. */
export function tagsFrom(text: string): string[] {
  const all = text.split(',').flatMap((t) => {
    const read = tag.safeParse(t)
    return read.success ? [read.data] : []
  })
  return [...new Set(all)].slice(0, 20)
}
