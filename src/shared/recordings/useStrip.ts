import { proxy } from 'comlink'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect } from 'react'
import type { Recording } from '@/core/model/recording'
import { quietly } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import { keepPictures, picturesFor } from '@/store/pictures'
import { storedFile } from '@/store/recordings'

/** How many pictures a recording's strip on the Shelf has, and how high they are (px). */
export const STRIP_PICTURES = 7
const STRIP_HEIGHT = 108

/** What this tab has begun; what cannot be made is not tried again and again. */
const begun = new Set<string>()
/** One at a time: a whole Shelf may lack its pictures, after a backup was put back. */
let queue: Promise<void> = Promise.resolve()

/**
 * The pictures across a recording, made when they are missing while it is on the screen: a tab may have been closed
 * while they were.
 */
export function useStrip(recording: Recording): Blob[] | null {
  const pictures = useLiveQuery(
    () => picturesFor(recording.id, recording.updatedAt),
    [recording.id, recording.updatedAt],
  )
  useEffect(() => {
    if (pictures !== null) return
    let isShown = true
    void storedFile(recording.id).then((found) => {
      if (found.ok) queueStrip(recording, found.file, () => isShown)
    })
    return () => {
      isShown = false
    }
  }, [pictures, recording])
  return pictures ?? null
}

/** Makes the strip of pictures across a recording and keeps it, when its turn comes and it `isWanted` then. */
export function queueStrip(recording: Recording, file: Blob, isWanted = () => true): void {
  queue = queue.then(() => (isWanted() ? makeStrip(recording, file) : undefined))
}

async function makeStrip(recording: Recording, file: Blob): Promise<void> {
  const key = `${recording.id} ${recording.updatedAt}`
  if (begun.has(key)) return
  begun.add(key)
  const times = Array.from({ length: STRIP_PICTURES }, (_, i) =>
    Math.round((recording.durationMicros * (i + 0.5)) / STRIP_PICTURES),
  )
  const pictures: Blob[] = []
  await inspector()
    .pictures(
      `strip ${recording.id}`,
      { id: recording.id, file, originMicros: recording.originMicros },
      times,
      STRIP_HEIGHT,
      'key-frame',
      proxy((_: number, picture: Blob) => void pictures.push(picture)),
    )
    .catch(quietly('pictures of a recording'))
  if (pictures.length > 0) await keepPictures(recording.id, recording.updatedAt, pictures)
}
