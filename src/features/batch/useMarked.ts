import { useRouter } from 'next/navigation'
import { useCallback, useState } from 'react'
import type { Highlight } from '@/core/model/highlight'
import type { HighlightId } from '@/core/model/ids'
import type { Decisions } from './useDecisions'
import { useSheetKeys } from './useSheetKeys'

export interface Marked {
  id: HighlightId | null
  playing: HighlightId | null
  naming: HighlightId | null
  mark: (id: HighlightId) => void
  togglePlaying: (id: HighlightId) => void
  stopNaming: () => void
}

/** The highlight of a contact sheet that keys act on, whether it plays, and whether its title is being typed. */
export function useMarked(
  shown: readonly Highlight[],
  { decisions, toggle, showKeys }: { decisions: Decisions; toggle: (id: HighlightId) => void; showKeys: () => void },
): Marked {
  const router = useRouter()
  const [id, setId] = useState<HighlightId | null>(null)
  const [playing, setPlaying] = useState<HighlightId | null>(null)
  const [naming, setNaming] = useState<HighlightId | null>(null)
  const at = shown.findIndex((h) => h.id === id)
  const marked = shown[at]
  const go = (by: 1 | -1) => {
    const next = shown[at < 0 ? 0 : Math.min(shown.length - 1, Math.max(0, at + by))]
    if (!next) return
    setId(next.id)
    // Going through them: the next one plays where this one did.
    setPlaying((now) => now && next.id)
  }
  const withMarked = (does: (highlight: Highlight) => void) => () => marked && does(marked)
  const drop = (highlight: Highlight) => {
    const next = shown[at + 1] ?? shown[at - 1]
    setId(next?.id ?? null)
    setPlaying((now) => now && (next?.id ?? null))
    void decisions.drop(highlight)
  }
  useSheetKeys({
    next: () => go(1),
    previous: () => go(-1),
    play: withMarked((h) => setPlaying((now) => (now === h.id ? null : h.id))),
    keep: withMarked((h) => void decisions.keep(h)),
    drop: withMarked(drop),
    name: withMarked((h) => setNaming(h.id)),
    arrange: withMarked((h) => void decisions.nextArrangement(h)),
    'in-earlier': withMarked((h) => void decisions.bySentence(h, 'in', 'earlier')),
    'in-later': withMarked((h) => void decisions.bySentence(h, 'in', 'later')),
    'out-earlier': withMarked((h) => void decisions.bySentence(h, 'out', 'earlier')),
    'out-later': withMarked((h) => void decisions.bySentence(h, 'out', 'later')),
    choose: withMarked((h) => toggle(h.id)),
    open: withMarked((h) => router.push(`/highlight/${encodeURIComponent(h.id)}`)),
    undo: () => void decisions.undo(),
    'let-go': () => setPlaying(null),
    keys: showKeys,
  })
  return {
    id,
    playing,
    naming,
    mark: setId,
    togglePlaying: useCallback((id: HighlightId) => setPlaying((now) => (now === id ? null : id)), []),
    stopNaming: useCallback(() => setNaming(null), []),
  }
}
