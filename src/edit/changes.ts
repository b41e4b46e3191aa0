import type { Draft } from 'immer'
import { onFrame, split } from '@/core/cut/passages'
import { recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { LayoutId, PassageId, SetupId } from '@/core/model/ids'
import type { CropPath, Passage } from '@/core/model/passage'
import type { Micros } from '@/core/time/micros'
import { command } from './command'

/** Where the picture changes at once within passages, and what each part is given. */

/** A cut of a passage at a recording time; what comes after it is called `newId`. */
export interface PassageCut {
  passageId: PassageId
  micros: Micros
  newId: PassageId
}

/** The passages that play a recording with one setup. */
export type PlayedScene = Pick<Passage, 'recordingId' | 'setupId'>

export const playsScene = (passage: Passage, { recordingId, setupId }: PlayedScene): boolean =>
  passage.recordingId === recordingId && passage.setupId === setupId

/** What is cut where a scene's passages play over `changes`, recording times on the recording's frames, rising. */
export function cutsAt(
  edit: Edit,
  scene: PlayedScene,
  changes: readonly Micros[],
  newId: () => PassageId,
): PassageCut[] {
  const footage = recordingOf(edit, scene.recordingId)
  return edit.highlight.passages
    .filter((p) => playsScene(p, scene))
    .flatMap((p) => {
      // Each cut falls in what is left after the one before.
      let passageId = p.id
      let passages: readonly Passage[] = [p]
      return changes.flatMap((micros): PassageCut[] => {
        const id = newId()
        const cut = split(passages, passageId, micros, id, footage)
        if (cut.length === passages.length) return []
        const made = { passageId, micros: onFrame(footage, micros), newId: id }
        passages = cut
        passageId = id
        return [made]
      })
    })
}

/** What a passage is given once it has been cut. */
export interface PassagePart {
  passageId: PassageId
  setupId: SetupId
  layoutId: LayoutId
  /** Where its crops are aimed; those of other regions stay. */
  cropPaths: readonly CropPath[]
}

function part(draft: Draft<Edit>, { cuts, parts }: { cuts: readonly PassageCut[]; parts: readonly PassagePart[] }) {
  const { highlight } = draft
  for (const { passageId, micros, newId } of cuts) {
    const passage = highlight.passages.find((p) => p.id === passageId)
    if (passage)
      highlight.passages = split(highlight.passages, passageId, micros, newId, recordingOf(draft, passage.recordingId))
  }
  for (const { passageId, setupId, layoutId, cropPaths } of parts) {
    const passage = highlight.passages.find((p) => p.id === passageId)
    if (!passage) continue
    const regions = setupOf(draft, setupId).regions.map((r) => r.id)
    Object.assign(passage, {
      setupId,
      layoutId,
      cropPaths: [...passage.cropPaths.filter((p) => !cropPaths.some((c) => c.regionId === p.regionId)), ...cropPaths],
      regionShifts: passage.regionShifts.filter((s) => regions.includes(s.regionId)),
    })
  }
}

/** What passages are cut into: scenes of a recorder, shots of an edited recording, turns of those who speak. */
export type CutInto = 'scenes' | 'shots' | 'turns'

/**
 * Cuts passages where the picture changes or somebody else speaks, and gives each part the setup and layout of what it
 * shows, as one step.
 */
export const cutAtChanges = command<{
  into: CutInto
  cuts: readonly PassageCut[]
  parts: readonly PassagePart[]
}>({
  id: 'cut-at-changes',
  label: ({ into }) => `Cut into ${into}`,
  refuse: (_, { cuts }) => (cuts.length === 0 ? 'nothing changes within a passage' : null),
  apply: part,
})
