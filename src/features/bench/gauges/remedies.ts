import { causeOf, type Finding } from '@/core/findings/finding'
import { passageOf, type Edit } from '@/core/model/edit'
import type { Draft } from 'immer'
import type { EditSession } from '../edits'

/** What can be done about findings. Each is one step of undo. */

function apply(draft: Draft<Edit>, { remedy }: Finding): void {
  switch (remedy?.kind) {
    case 'move-crop': {
      const { correction } = remedy
      const passage = passageOf(draft, remedy.passageId)
      passage.corrections = [...passage.corrections.filter((c) => c.panelId !== correction.panelId || c.shapeId !== correction.shapeId), correction]
      break
    }
    case 'own-rate':
      draft.highlight.output.frameRate = null
      break
    case 'smaller-file':
      draft.highlight.output.quality = 'small'
      break
    case 'gain':
      for (const { sound } of draft.highlight.passages) if (!sound.muted) sound.gainDb += remedy.db
      for (const bed of draft.highlight.beds) bed.gainDb += remedy.db
      break
    case 'lengthen-cue': {
      const cue = draft.highlight.words.cues.find((c) => c.id === remedy.cueId)
      if (cue) cue.toMicros = Math.max(cue.toMicros, remedy.toMicros)
      break
    }
    case undefined:
      break
  }
}

export function putRight(session: EditSession, finding: Finding): void {
  session.change('Put right', crypto.randomUUID(), (draft) => apply(draft, finding))
}

/** Puts right all that can be, in one step; gives how many findings that were. What cures several is done once. */
export function putAllRight(session: EditSession, findings: readonly Finding[]): number {
  const curable = findings.filter((f) => f.remedy)
  if (curable.length > 0) session.change('Put right what can be put right', crypto.randomUUID(), (draft) => [...new Map(curable.map((f) => [JSON.stringify(f.remedy), f])).values()].forEach((f) => apply(draft, f)))
  return curable.length
}

/** Says that a fault is meant so: it stays quiet until what causes it changes. */
export function accept(session: EditSession, finding: Finding): void {
  session.change('Meant so', crypto.randomUUID(), ({ highlight }) => {
    highlight.accepted = [...highlight.accepted.slice(-499), causeOf(finding)]
  })
}
