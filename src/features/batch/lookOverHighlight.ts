import { NOTHING_KNOWN } from '@/core/findings/findings'
import { causeOf, type Finding } from '@/core/findings/finding'
import { usedFiles, usedRecordings } from '@/core/model/edit'
import type { HighlightId } from '@/core/model/ids'
import { inspector } from '@/media/inspect/inspector'
import { speechOf } from '@/store/analyses'
import { loadEdit } from '@/store/highlights'
import { storedFile } from '@/store/recordings'

let before: Promise<unknown> = Promise.resolve()

/** What is wrong with a highlight that nobody has open, worst first: what can be told of its pictures, words and files; not how loud it is. One after the other. Null when it cannot be opened. */
export function lookOverHighlight(id: HighlightId): Promise<Finding[] | null> {
  const next = before.then(() => lookOver(id))
  before = next.catch(() => {})
  return next
}

async function lookOver(id: HighlightId): Promise<Finding[] | null> {
  const loaded = await loadEdit(id)
  if (!loaded.ok) return null
  const { edit } = loaded
  const files = new Map<string, Blob>()
  const missing = new Set<string>()
  for (const { id } of [...usedRecordings(edit), ...usedFiles(edit)]) {
    const found = await storedFile(id)
    if (found.ok) files.set(id, found.file)
    else missing.add(id)
  }
  const { measure: _, ...known } = NOTHING_KNOWN
  void _
  const findings = await inspector().findings(edit, { ...known, missing, speech: await speechOf(usedRecordings(edit)) }, files)
  return findings?.filter((f) => !edit.highlight.accepted.includes(causeOf(f))) ?? null
}
