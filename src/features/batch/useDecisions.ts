import { useSnackbar } from 'notistack'
import { useCallback, useRef } from 'react'
import { inOrder, suitedLayouts } from '@/core/compose/suitedLayouts'
import { edgeBySentence } from '@/core/drafts/bySentence'
import { speechOfAnalysis } from '@/core/detect/speech'
import { layoutOf, passageOf } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import { newId, type HighlightId, type InsetId } from '@/core/model/ids'
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

/** What can be decided about a highlight from the contact sheet, and undone there, the last first. */
export function useDecisions(): Decisions {
  const { enqueueSnackbar } = useSnackbar()
  const undone = useRef<(() => Promise<unknown>)[]>([])
  const change = useCallback(
    async (id: HighlightId, does: (session: EditSession) => void | Promise<void>) => {
      if (await changeHighlight(id, does)) undone.current.push(() => changeHighlight(id, (s) => s.undo()))
      else enqueueSnackbar(wording.couldNotBeChanged, { variant: 'error' })
    },
    [enqueueSnackbar],
  )
  return {
    keep: ({ id, draft }) =>
      draft ? change(id, (session) => void keepDraft(session, { isKept: !draft.isKept })) : Promise.resolve(),
    drop: async ({ id, name }) => {
      await binHighlight(id, true)
      undone.current.push(() => binHighlight(id, false))
      enqueueSnackbar(wording.isInTheBin(name))
    },
    rename: ({ id }, name) => change(id, (session) => void setName(session, { name })),
    bySentence: async ({ id, passages }, which, direction) => {
      const passage = which === 'in' ? passages[0] : passages.at(-1)
      const loaded = await loadEdit(id)
      const recording = loaded.ok && loaded.edit.recordings.find((r) => r.id === passage?.recordingId)
      if (!passage || !recording) return
      const speech = speechOfAnalysis(await analysisOf(recording))
      const here = which === 'in' ? passage.inMicros : passage.outMicros
      const t = edgeBySentence(speech, which, here, direction)
      if (t === null || (which === 'in' ? t >= passage.outMicros : t <= passage.inMicros))
        return void enqueueSnackbar(wording.noSentenceThere)
      await change(id, (session) => void trimPassage(session, { id: passage.id, which, t }))
    },
    nextArrangement: async ({ id, passages: [passage] }) => {
      if (passage) await change(id, (session) => arrangeNext(session, passage.id))
    },
    undo: async () => {
      const last = undone.current.pop()
      if (last) await last()
      else enqueueSnackbar(wording.nothingToUndo)
    },
  }
}

/** The arrangement that suits a passage next best after the one that it has; after the last the best again. */
function arrangeNext(session: EditSession, passageId: Parameters<typeof passageOf>[1]): void {
  const edit = session.value
  const passage = passageOf(edit, passageId)
  const layout = layoutOf(edit, passage.layoutId)
  const suited = inOrder(suitedLayouts(edit, passage, { panel: idsInUse(layout), inset: () => newId<InsetId>() }))
  const here = suited.findIndex((s) => s.starting.name === layout.name)
  const next = suited[(here + 1) % Math.max(1, suited.length)]
  if (next) layOut(session, { passageId, layoutId: layout.id, name: next.starting.name, chosen: chosenAs(next) })
}
