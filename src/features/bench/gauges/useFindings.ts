import { useEffect, useMemo, useRef, useState } from 'react'
import { causeOf, type Finding } from '@/core/findings/finding'
import { withHeard, type MeasurementsBesideFonts } from '@/core/findings/findings'
import type { Edit } from '@/core/model/edit'
import type { Loudness } from '@/core/sound/loudness'
import { inspector } from '@/media/inspect/inspector'
import { useBenchContext, useEdit, useView } from '../benchContext'
import { useHeard } from '../useHeard'
import { useEdges } from './useEdges'
import { useLoudness } from './useLoudness'
import { usePresence } from './usePresence'

/** Somebody who is dragging something changes the edit sixty times a second: it is looked over when that rests. */
const REST_MS = 40
/** A highlight that is being opened has pictures to show first. */
const OPENING_MS = 1200

const NOTHING_MISSING: ReadonlySet<string> = new Set()

export interface Looked {
  findings: Finding[]
  /** Those that were said to be meant so. */
  accepted: Finding[]
  /** How loud it is, and was before its sound was changed last; null while that is not known. */
  loudness: Loudness | null
  loudnessBefore: Loudness | null
  /** Whether the edit has changed since. */
  stale: boolean
}

/**
 * What is found in the highlight that is worked on, a moment after each change; null before the first look. Asked for
 * once, by the screen: it keeps a worker busy.
 */
export function useFindings(): Looked | null {
  const { files } = useBenchContext()
  const edit = useEdit()
  const outlet = useView((v) => v.outlet)
  const unreadable = useView((v) => v.unreadable)
  const { loudness, before, stale: soundStale } = useLoudness()
  const speech = useHeard(edit, files)
  const edges = useEdges()
  const presence = usePresence()
  const known = useMemo<MeasurementsBesideFonts>(
    () => ({ outlet, loudness: null, speech, edges, presence, missing: unreadable ?? NOTHING_MISSING }),
    [outlet, speech, edges, presence, unreadable],
  )
  const [found, setFound] = useState<{ edit: Edit; known: typeof known; findings: Finding[] } | null>(null)
  const lookedAt = useRef<Edit | null>(null)
  useEffect(() => {
    let live = true
    const rest = restBefore(edit, lookedAt.current)
    const waiting = setTimeout(() => {
      lookedAt.current = edit
      void inspector()
        .findings(edit, known, fontsOf(edit, files))
        .then((findings) => {
          if (!live || !findings) return
          setFound({ edit, known, findings })
        })
    }, rest)
    return () => {
      live = false
      clearTimeout(waiting)
    }
  }, [edit, known, files])
  return useMemo(() => {
    if (!found) return null
    const quiet = new Set(edit.highlight.accepted)
    const all = withHeard(found.findings, edit, loudness, outlet)
    return {
      findings: all.filter((f) => !quiet.has(causeOf(f))),
      accepted: all.filter((f) => quiet.has(causeOf(f))),
      loudness,
      loudnessBefore: before,
      stale: found.edit !== edit || found.known !== known || soundStale,
    }
  }, [found, edit, known, outlet, loudness, before, soundStale])
}

function fontsOf({ fontFiles }: Edit, files: ReadonlyMap<string, Blob>): Map<string, Blob> {
  return new Map(fontFiles.flatMap(({ id }) => (files.has(id) ? [[id, files.get(id) as Blob]] : [])))
}

/**
 * How long an edit is left alone before it is looked over, ms. What was measured about the edit that was looked at is
 * not somebody at work.
 */
function restBefore(edit: Edit, lookedAt: Edit | null): number {
  if (lookedAt === null) return OPENING_MS
  return lookedAt === edit ? 0 : REST_MS
}
