import { quietly } from '@/diagnostics/note'
import { database } from './database'

/** Small pictures of a recording or highlight, if they were made for its present state (`updatedAt`). */
export async function picturesFor(owner: string, madeFor: string): Promise<Blob[] | null> {
  const stored = await database().pictures.get(owner)
  return stored?.madeFor === madeFor ? stored.pictures : null
}

/** Keeps pictures; they can be made again, so a full disk is no misfortune and is not reported. */
export async function keepPictures(owner: string, madeFor: string, pictures: Blob[]): Promise<void> {
  await database().pictures.put({ owner, madeFor, pictures }).catch(quietly('keeping pictures'))
}
