import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect } from 'react'
import type { Highlight } from '@/core/model/highlight'
import { outputLength } from '@/core/time/timeMap'
import { nullOnError } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import { loadEdit } from '@/store/highlights'
import { keepPictures, picturesFor } from '@/store/pictures'
import { filesOfEdit } from '@/store/recordings'

const POSTER_HEIGHT = 160

const making = new Set<string>()

/** A highlight's poster: its middle frame in its first shape, made when it is missing or out of date. */
export function usePoster(highlight: Highlight): Blob | null {
  const pictures = useLiveQuery(
    () => picturesFor(highlight.id, highlight.updatedAt),
    [highlight.id, highlight.updatedAt],
  )
  useEffect(() => {
    if (pictures !== null) return
    const key = `${highlight.id} ${highlight.updatedAt}`
    if (making.has(key)) return
    making.add(key)
    void makePoster(highlight).finally(() => making.delete(key))
  }, [pictures, highlight])
  return pictures?.[0] ?? null
}

async function makePoster(highlight: Highlight): Promise<void> {
  const loaded = await loadEdit(highlight.id)
  const shape = highlight.shapes[0]
  if (!loaded.ok || !shape) return
  const { files } = await filesOfEdit(loaded.edit)
  const picture = await inspector()
    .still(loaded.edit, shape, files, Math.floor(outputLength(highlight) / 2), POSTER_HEIGHT)
    .catch(nullOnError('a poster'))
  if (picture) await keepPictures(highlight.id, highlight.updatedAt, [picture])
}
