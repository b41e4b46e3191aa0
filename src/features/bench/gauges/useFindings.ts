import { useEffect, useState } from 'react'
import { causeOf, type Finding } from '@/core/findings/finding'
import { findingsOf } from '@/core/findings/findings'
import type { Edit } from '@/core/model/edit'
import type { Loudness } from '@/core/sound/loudness'
import { loadFonts } from '@/media/fonts/loadFonts'
import { measureText } from '@/media/fonts/measureText'
import { useEdit, useView } from '../benchContext'
import { useLoudness } from './useLoudness'

/** Somebody who is dragging something changes the edit sixty times a second: it is looked over when that rests. */
const REST_MS = 250

export interface Looked {
  findings: Finding[]
  /** Those that were said to be meant so. */
  accepted: number
  /** Whether the edit has changed since. */
  stale: boolean
}

/** What is found in the highlight that is worked on, a moment after each change; null before the first look. */
export function useFindings(): Looked | null {
  const edit = useEdit()
  const outlet = useView((v) => v.outlet)
  const sound = useLoudness()
  const { loudness } = sound
  const [found, setFound] = useState<{ edit: Edit; outlet: typeof outlet; loudness: Loudness | null; findings: Finding[] } | null>(null)
  useEffect(() => {
    let live = true
    const look = async () => {
      const fonts = await loadWords(edit).then(() => true, () => false)
      if (live) setFound({ edit, outlet, loudness, findings: findingsOf(edit, { outlet, loudness, measure: fonts ? measureText : null }) })
    }
    const waiting = setTimeout(() => void look(), REST_MS)
    return () => {
      live = false
      clearTimeout(waiting)
    }
  }, [edit, outlet, loudness])
  if (!found) return null
  const quiet = new Set(edit.highlight.accepted)
  const findings = found.findings.filter((f) => !quiet.has(causeOf(f)))
  return { findings, accepted: found.findings.length - findings.length, stale: found.edit !== edit || found.outlet !== outlet || found.loudness !== loudness || sound.stale }
}

/** Whether words fit can be told when their fonts are here. */
async function loadWords({ highlight: { words } }: Edit): Promise<void> {
  await Promise.all([...words.titles.map((t) => loadFonts(t.text, t.style)), ...words.cues.map((c) => loadFonts(c.text, words.captions.style))])
}
