import type { ImageFile } from '@/core/model/imageFile'
import type { MarkKind, PictureMark } from '@/core/model/pictureMark'

export const MARK_NAMES: Record<MarkKind, string> = {
  handle: 'Handle',
  picture: 'Picture',
  level: 'Sound level',
  countdown: 'Countdown',
  progress: 'Progress bar',
  endCard: 'End card',
}

/** What a mark is called in a list: by what it shows, where that tells it from others. */
export function markName(mark: PictureMark, images: readonly ImageFile[]): string {
  const name = MARK_NAMES[mark.kind]
  if (mark.kind === 'handle') return mark.text.trim() ? `${name} “${mark.text.trim()}”` : name
  if (mark.kind === 'picture') return images.find((i) => i.id === mark.imageFileId)?.name ?? 'A picture that is missing'
  return name
}
