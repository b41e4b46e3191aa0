import type { Finding } from '@/core/findings/finding'
import { findingsOf, type MeasurementsBesideFonts } from '@/core/findings/findings'
import type { Edit } from '@/core/model/edit'
import { tryRemedy } from '@/edit/remedies'
import { listOwnFont, loadFonts } from '../fonts/loadFonts'
import { measureText } from '../fonts/measureText'
import { missingGlyphs } from '../fonts/missingGlyphs'

/**
 * What is wrong with an edit, with its words measured in their fonts where those can be had; null when `signal` is
 * aborted meanwhile.
 */
export async function lookOver(
  edit: Edit,
  known: MeasurementsBesideFonts,
  files: ReadonlyMap<string, Blob>,
  signal: AbortSignal,
): Promise<Finding[] | null> {
  for (const { id, name } of edit.fontFiles) {
    const file = files.get(id)
    if (file) listOwnFont(name, file)
  }
  const { titles, cues, captions } = edit.highlight.words
  const here = await Promise.all([
    ...titles.map((t) => loadFonts(t.text, t.style)),
    ...cues.map((c) => loadFonts(c.text, captions.style)),
  ]).then(
    () => true,
    () => false,
  )
  if (signal.aborted) return null
  const said = [...titles.map((t) => [t.text, t.style] as const), ...cues.map((c) => [c.text, captions.style] as const)]
  const missing = new Set(here ? said.flatMap(([text, style]) => missingGlyphs(text, style)) : [])
  return findingsOf(edit, { ...known, measure: here ? measureText : null, missingGlyphs: missing }, tryRemedy)
}
