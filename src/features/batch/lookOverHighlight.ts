import { NOTHING_LOOKED_AT, type Measurements } from '@/core/findings/findings'
import { causeOf, type Finding } from '@/core/findings/finding'
import { usedRecordings, type Edit } from '@/core/model/edit'
import type { HighlightId } from '@/core/model/ids'
import { nullOnError, quietly } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import { speechOf } from '@/store/analyses'
import { loadEdit } from '@/store/highlights'
import { filesOfEdit } from '@/store/recordings'
import { edgesOf } from '@/shared/looks/edges'
import { presencesOf } from '@/shared/looks/presences'

type Learnt = Partial<Pick<Measurements, 'loudness' | 'edges' | 'presence'>>

/**
 * What is found out of a highlight, from what is known at once to what takes longest: how loud it is and the borders
 * in its regions, then when somebody leaves theirs.
 */
const LOOKS: readonly ((edit: Edit, files: ReadonlyMap<string, Blob>) => Promise<Learnt>)[] = [
  async () => ({}),
  async (edit, files) => ({
    loudness: await inspector()
      .loudness(edit, files, await speechOf(usedRecordings(edit)))
      .catch(nullOnError('looking a highlight over')),
    edges: await edgesOf(edit, files),
  }),
  async (edit, files) => ({ presence: await presencesOf(edit, files) }),
]

/**
 * For each look, what is still to be done of it: one highlight after the other, and none before all have had the
 * quicker looks.
 */
const lines: Promise<unknown>[] = LOOKS.map(() => Promise.resolve())

/**
 * What is wrong with a highlight that nobody has open, worst first; told again as more is known. Nothing is told of
 * one that cannot be opened. `isOver`: whether nobody wants to know any more.
 */
export function lookOverHighlight(
  id: HighlightId,
  onFound: (findings: Finding[]) => void,
  isOver: () => boolean,
): void {
  let learnt: Learnt = {}
  LOOKS.forEach((look, n) => {
    const turn = async () => {
      if (isOver()) return
      const opened = await open(id)
      if (!opened) return
      const { edit, files, missing } = opened
      learnt = { ...learnt, ...(await look(edit, files)) }
      const findings = await inspector().findings(
        edit,
        { ...NOTHING_LOOKED_AT, ...learnt, missing, speech: await speechOf(usedRecordings(edit)) },
        files,
      )
      if (findings && !isOver()) onFound(findings.filter((f) => !edit.highlight.accepted.includes(causeOf(f))))
    }
    lines[n] = Promise.resolve(lines[n])
      .then(() => lines[n - 1])
      .then(turn)
      .catch(quietly('looking a highlight over'))
  })
}

async function open(
  id: HighlightId,
): Promise<{ edit: Edit; files: ReadonlyMap<string, Blob>; missing: ReadonlySet<string> } | null> {
  const loaded = await loadEdit(id)
  if (!loaded.ok) return null
  const { edit } = loaded
  const { files, missing } = await filesOfEdit(edit)
  return { edit, files, missing }
}
