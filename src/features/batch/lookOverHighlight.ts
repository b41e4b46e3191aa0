import { NOTHING_KNOWN } from '@/core/findings/findings'
import { causeOf, type Finding } from '@/core/findings/finding'
import { usedFiles, usedRecordings } from '@/core/model/edit'
import type { HighlightId } from '@/core/model/ids'
import { inspector } from '@/media/inspect/inspector'
import { speechOf } from '@/store/analyses'
import { loadEdit } from '@/store/highlights'
import { storedFile } from '@/store/recordings'
import { edgesOf } from '../bench/gauges/edges'

let quick: Promise<unknown> = Promise.resolve()
let thorough: Promise<unknown> = Promise.resolve()

/**
 * What is wrong with a highlight that nobody has open, worst first. Told twice: what can be seen from the edit at once, and all of it, with how loud it is and the
 * borders in its regions, when every highlight has been told of for the first time. Nothing is told of one that cannot be opened. `isOver`: whether nobody wants to know any more.
 */
export function lookOverHighlight(id: HighlightId, onFound: (findings: Finding[]) => void, isOver: () => boolean): void {
  quick = quick.then(() => (isOver() ? null : lookOver(id, false))).then((found) => found && onFound(found), () => {})
  thorough = thorough.then(() => quick).then(() => (isOver() ? null : lookOver(id, true))).then((found) => found && onFound(found), () => {})
}

async function lookOver(id: HighlightId, thoroughly: boolean): Promise<Finding[] | null> {
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
  const { measure: _, ...nothing } = NOTHING_KNOWN
  void _
  const speech = await speechOf(usedRecordings(edit))
  const listened = thoroughly ? { loudness: await inspector().loudness(edit, files, speech).catch(() => null), edges: await edgesOf(edit, files) } : {}
  const findings = await inspector().findings(edit, { ...nothing, ...listened, missing, speech }, files)
  return findings?.filter((f) => !edit.highlight.accepted.includes(causeOf(f))) ?? null
}
