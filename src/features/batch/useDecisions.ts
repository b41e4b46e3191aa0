import { useSnackbar } from 'notistack'
import { useMemo, useRef } from 'react'
import { inOrder, suitedLayouts } from '@/core/compose/suitedLayouts'
import { edgeBySentence } from '@/core/drafts/bySentence'
import { speechOfAnalysis } from '@/core/detect/speech'
import { layoutOf } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import { newId, type HighlightId, type InsetId } from '@/core/model/ids'
import { quietly } from '@/diagnostics/note'
import { keepDraft, setName } from '@/edit/highlight'
import { chosenAs, idsInUse, layOut } from '@/edit/layouts'
import { trimPassage } from '@/edit/passages'
import { changeHighlight } from '@/shared/changeHighlight'
import { analysisOf } from '@/store/analyses'
import { binHighlight, loadEdit, type EditSession } from '@/store/highlights'
import { wording } from './wording'

export interface Decisions {
  keep: (highlight: Highlight) => Promise<void>
  drop: (highlight: Highlight) => Promise<void>
  rename: (highlight: Highlight, name: string) => Promise<void>
  /** Moves its start or its end by a sentence. */
  bySentence: (highlight: Highlight, which: 'in' | 'out', direction: 'earlier' | 'later') => Promise<void>
  nextArrangement: (highlight: Highlight) => Promise<void>
  undo: () => Promise<void>
}

/** What can be decided about highlights from the contact sheet, in turn, and undone there, the last first. */
export function useDecisions(): Decisions {
  const { enqueueSnackbar } = useSnackbar()
  const undone = useRef<(() => Promise<unknown>)[]>([])
  const line = useRef(Promise.resolve())
  return useMemo(() => {
    const inTurn = (does: () => Promise<void>) => (line.current = line.current.then(does).catch(quietly('a decision')))
    const change = async (id: HighlightId, does: (session: EditSession) => void) => {
      if (await changeHighlight(id, does)) undone.current.push(() => changeHighlight(id, (s) => s.undo()))
      else enqueueSnackbar(wording.couldNotBeChanged, { variant: 'error' })
    }
    const keep = ({ id, draft }: Highlight) =>
      draft ? change(id, (session) => void keepDraft(session, { isKept: !draft.isKept })) : Promise.resolve()
    const drop = async ({ id, name }: Highlight) => {
      await binHighlight(id, true)
      undone.current.push(() => binHighlight(id, false))
      enqueueSnackbar(wording.isInTheBin(name))
    }
    const bySentence = async (id: HighlightId, which: 'in' | 'out', direction: 'earlier' | 'later') => {
      const loaded = await loadEdit(id)
      if (!loaded.ok) return
      const { passages } = loaded.edit.highlight
      const passage = which === 'in' ? passages[0] : passages.at(-1)
      const recording = loaded.edit.recordings.find((r) => r.id === passage?.recordingId)
      if (!passage || !recording) return
      const speech = speechOfAnalysis(await analysisOf(recording))
      const t = edgeBySentence(speech, which, which === 'in' ? passage.inMicros : passage.outMicros, direction)
      if (t === null || (which === 'in' ? t >= passage.outMicros : t <= passage.inMicros))
        return void enqueueSnackbar(wording.noSentenceThere)
      await change(id, (session) => void trimPassage(session, { id: passage.id, which, t }))
    }
    const undo = async () => {
      const last = undone.current.pop()
      if (last) await last()
      else enqueueSnackbar(wording.nothingToUndo)
    }
    return {
      keep: (highlight) => inTurn(() => keep(highlight)),
      drop: (highlight) => inTurn(() => drop(highlight)),
      rename: ({ id }, name) => inTurn(() => change(id, (session) => void setName(session, { name }))),
      bySentence: ({ id }, which, direction) => inTurn(() => bySentence(id, which, direction)),
      nextArrangement: ({ id }) => inTurn(() => change(id, arrangeNext)),
      undo: () => inTurn(undo),
    }
  }, [enqueueSnackbar])
}

/**
 * The arrangement that suits the first passage next best after the one that it has; after the last that can be right
 * the best again.
 */
function arrangeNext(session: EditSession): void {
  const edit = session.value
  const [passage] = edit.highlight.passages
  if (!passage) return
  const layout = layoutOf(edit, passage.layoutId)
  const ids = { panel: idsInUse(layout), inset: () => newId<InsetId>() }
  const suited = inOrder(suitedLayouts(edit, passage, ids)).filter((s) => s.faults.length === 0)
  const here = suited.findIndex((s) => s.starting.name === layout.name)
  const next = suited[(here + 1) % Math.max(1, suited.length)]
  if (next)
    layOut(session, {
      passageId: passage.id,
      layoutId: layout.id,
      name: next.starting.name,
      chosen: chosenAs(next),
    })
}
