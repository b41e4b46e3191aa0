import {
  BUNDLE_ENTRY,
  MAX_BUNDLE_JSON_BYTES,
  MAX_ENTRIES,
  RACK_ENTRY,
  readBundle,
  type BundleRefusal,
  type Carried,
} from '@/core/interchange/bundle'
import { MAX_RACK_FILE_BYTES } from '@/core/interchange/rackFile'
import type { Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { readZip, type ZipFault } from '../zip/readZip'

export type ZipRefusal = BundleRefusal | ZipFault
export type BundleOpened =
  | { ok: true; edits: Edit[]; speechOf: SpeechOf; rack: string | null; files: { of: Carried; blob: Blob }[] }
  | { ok: false; reason: ZipRefusal; detail: string }

/**
 * Opens a bundle, or what a bundle says, alone, as a `.brimble.json` file: nothing of it is kept unless all of it can
 * be read.
 */
export async function openBundle(file: File): Promise<BundleOpened> {
  return /\.json$/i.test(file.name) ? openAlone(file) : openZip(file)
}

async function openAlone(file: File): Promise<BundleOpened> {
  if (file.size > MAX_BUNDLE_JSON_BYTES) return { ok: false, reason: 'too-large', detail: file.name }
  const read = readBundle(await file.text())
  return read.ok ? { ok: true, edits: read.edits, speechOf: read.speechOf, rack: null, files: [] } : read
}

async function openZip(zip: Blob): Promise<BundleOpened> {
  const opened = await readZip<BundleOpened>(zip, MAX_ENTRIES + 2, async (open) => {
    if (!open.has(BUNDLE_ENTRY)) return { ok: false, reason: 'not-a-bundle', detail: '' }
    const read = readBundle(await open.text(BUNDLE_ENTRY, MAX_BUNDLE_JSON_BYTES))
    if (!read.ok) return read
    const rack = open.has(RACK_ENTRY) ? await open.text(RACK_ENTRY, MAX_RACK_FILE_BYTES) : null
    const files = []
    for (const of of read.carried) files.push({ of, blob: await open.blob(of.entry, of.sizeBytes) })
    return { ok: true, edits: read.edits, speechOf: read.speechOf, rack, files }
  })
  return opened.ok ? opened.value : opened
}
