import { writeBundle } from '@/core/interchange/bundle'
import { writeRackFile } from '@/core/interchange/rackFile'
import { usedFiles, usedRecordings, type Edit } from '@/core/model/edit'
import { makeBundle, type MediaIn } from '@/media/bundle/writeBundle'
import { speechOf } from '@/store/analyses'
import { toFile } from '@/store/rackFiles'
import { kept } from '@/store/rack'
import { storedFile } from '@/store/recordings'

/** A bundle of one edit, with the brand that it is in. `files`: bytes that are at hand, by id. */
export async function bundleOf(
  edit: Edit,
  media: MediaIn,
  files: ReadonlyMap<string, Blob>,
  onProgress: (share: number) => void,
): Promise<File> {
  const brands = (await kept('brand')).filter((b) => b.id === edit.highlight.brandId)
  const rack = brands.length > 0 ? writeRackFile(await toFile({ brand: brands })) : null
  const all = new Map(files)
  for (const { id } of [...usedRecordings(edit), ...usedFiles(edit)]) {
    const stored = all.has(id) ? null : await storedFile(id)
    if (stored?.ok) all.set(id, stored.file)
  }
  return makeBundle(
    { edits: [edit], speechOf: await speechOf(usedRecordings(edit)), rack, media, files: all },
    onProgress,
  )
}

/**
 * What a bundle of one edit says, without the bytes of anything: for whoever has its recordings, pictures and fonts.
 */
export async function aloneOf(edit: Edit): Promise<string> {
  return writeBundle([edit], await speechOf(usedRecordings(edit)))
}
