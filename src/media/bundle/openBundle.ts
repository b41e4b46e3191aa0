import { BUNDLE_ENTRY, MOST_BUNDLE_JSON_BYTES, MOST_ENTRIES, RACK_ENTRY, readBundle, type BundleRefusal, type Carried } from '@/core/interchange/bundle'
import { MOST_RACK_FILE_BYTES } from '@/core/interchange/rackFile'
import type { Edit } from '@/core/model/edit'
import { readZip, type ZipFault } from '../zip/readZip'

export type ZipRefusal = BundleRefusal | ZipFault
export type BundleOpened = { ok: true; edits: Edit[]; rack: string | null; files: { of: Carried; blob: Blob }[] } | { ok: false; reason: ZipRefusal; detail: string }

/** Opens a bundle: nothing of it is kept unless all of it can be read. */
export async function openBundle(zip: Blob): Promise<BundleOpened> {
  const opened = await readZip<BundleOpened>(zip, MOST_ENTRIES + 2, async (open) => {
    if (!open.has(BUNDLE_ENTRY)) return { ok: false, reason: 'not-a-bundle', detail: '' }
    const read = readBundle(await open.text(BUNDLE_ENTRY, MOST_BUNDLE_JSON_BYTES))
    if (!read.ok) return read
    const rack = open.has(RACK_ENTRY) ? await open.text(RACK_ENTRY, MOST_RACK_FILE_BYTES) : null
    const files = []
    for (const of of read.carried) files.push({ of, blob: await open.blob(of.entry, of.sizeBytes) })
    return { ok: true, edits: read.edits, rack, files }
  })
  return opened.ok ? opened.value : opened
}
