import { causeOf, type Finding } from '@/core/findings/finding'
import type { Layout } from '@/core/model/layout'
import type { OutputChoice } from '@/core/model/outputChoice'
import type { Setup } from '@/core/model/setup'
import type { Shape } from '@/core/model/shape'
import type { Version } from '@/core/model/version'
import { command, type Host } from './command'
import { addRecords } from './records'

/** A highlight as a whole: its name, shapes, versions, how it is rendered, and what was answered to findings. */

export const setName = command<{ name: string }>({
  id: 'set-name',
  label: 'Rename',
  apply: (draft, { name }) => {
    draft.highlight.name = name
  },
})

/** Says that a draft is to be kept, or that it is open again. */
export const keepDraft = command<{ isKept: boolean }>({
  id: 'keep-draft',
  label: ({ isKept }) => (isKept ? 'Keep draft' : 'Open draft again'),
  refuse: ({ highlight }) => (highlight.draft ? null : 'this is no draft'),
  apply: ({ highlight }, { isKept }) => {
    if (highlight.draft) highlight.draft.isKept = isKept
  },
})

/** Puts a shape into the highlight or takes it out. */
export const toggleShape = command<{ shape: Shape }>({
  id: 'toggle-shape',
  label: 'Choose shapes',
  refuse: ({ highlight: { shapes } }, { shape }) =>
    shapes.length === 1 && shapes[0]?.id === shape.id ? 'a highlight has at least one shape' : null,
  apply: (draft, { shape }) => {
    const { shapes } = draft.highlight
    const at = shapes.findIndex((s) => s.id === shape.id)
    if (at < 0) shapes.push({ ...shape })
    else shapes.splice(at, 1)
  },
})

export const setOutput = command<{ output: OutputChoice }>({
  id: 'set-output',
  label: 'Choose how to render',
  apply: (draft, { output }) => {
    draft.highlight.output = output
  },
})

/** So many answers a highlight keeps. */
export const MAX_ACCEPTED = 500

/** Says that a fault is meant so: it stays quiet until what causes it changes. */
export const acceptFinding = command<{ finding: Pick<Finding, 'key' | 'fault'> }>({
  id: 'accept-finding',
  label: 'Ignore finding',
  apply: ({ highlight }, { finding }) => {
    highlight.accepted = [...highlight.accepted, causeOf(finding)].slice(-MAX_ACCEPTED)
  },
})

/** Puts a kept version in the place of the present state; the name stays. */
export const restoreVersion = command<{ version: Version }>({
  id: 'restore-version',
  label: 'Go back to a version',
  apply: (draft, { version: { edit } }) => {
    const { passages, shapes, joinTiming, beds, words, marks, accepted, output, limitDb, brandId } = edit.highlight
    Object.assign(draft.highlight, {
      passages,
      shapes,
      joinTiming,
      beds,
      words,
      marks,
      accepted,
      output,
      limitDb,
      brandId,
    })
    for (const setup of draft.setups) Object.assign(setup, regionsOf(edit.setups.find((s) => s.id === setup.id)))
    for (const layout of draft.layouts) Object.assign(layout, arranged(edit.layouts.find((l) => l.id === layout.id)))
  },
})

/** Goes back to a kept version, with the records that it refers to; undo leads forward again. */
export function goBackTo(host: Host, version: Version): void {
  addRecords(host, version.edit)
  restoreVersion(host, { version })
}

function regionsOf(setup: Setup | undefined): Partial<Setup> {
  return setup
    ? {
        regions: setup.regions,
        name: setup.name,
        tags: setup.tags,
        fingerprint: setup.fingerprint,
        basedOn: setup.basedOn,
        isGuess: setup.isGuess,
        rejected: setup.rejected ?? [],
      }
    : {}
}

function arranged(layout: Layout | undefined): Partial<Layout> {
  return layout
    ? { arrangement: layout.arrangement, perShape: layout.perShape, name: layout.name, basedOn: layout.basedOn }
    : {}
}
