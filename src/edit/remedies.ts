import { produce, type Draft } from 'immer'
import { isSafe, targetOf, type Finding, type Remedy } from '@/core/findings/finding'
import { passageOf, type Edit } from '@/core/model/edit'
import { command, type Command } from './command'
import { goOwnWay, setBackdrop, setCorrection } from './layouts'
import { setOutput } from './highlight'
import { endAt, setJoin, setSpeed, slipPassage } from './passages'
import { resizeRegion } from './regions'
import { changeGain } from './sound'
import { changeStyle, lengthenCue, splitCaption } from './words'

/** What remedies of findings do, by the commands that a person would use. */

/** A command with what it is to be done with. */
interface Act {
  why: (edit: Edit) => string | null
  apply: (draft: Draft<Edit>) => void
}

const act = <A>({ why, apply }: Command<A>, args: A): Act => ({
  why: (edit) => why(edit, args),
  apply: (draft) => apply(draft, args),
})

const NOTHING: Act = { why: () => 'there is nothing to change', apply: () => {} }

/** The command that a remedy stands for. Throws RangeError when the edit lacks a record that it names. */
function actOf(edit: Edit, remedy: Remedy): Act {
  const { output } = edit.highlight
  switch (remedy.kind) {
    case 'move-crop':
      return act(setCorrection, remedy)
    case 'tighten-region':
    case 'grow-region':
      return act(resizeRegion, { id: remedy.regionId, bounds: remedy.bounds, label: 'Fix' })
    case 'move-inset':
    case 'lower-band':
    case 'swap-bands':
      return act(goOwnWay, remedy)
    case 'backdrop':
      return act(setBackdrop, remedy)
    case 'slip':
      return act(slipPassage, { id: remedy.passageId, by: remedy.byMicros })
    case 'shorten-join': {
      const { join } = passageOf(edit, remedy.passageId)
      return join.kind === 'cut'
        ? NOTHING
        : act(setJoin, { id: remedy.passageId, join: { ...join, lengthMicros: remedy.toMicros } })
    }
    case 'slow-down':
      return act(setSpeed, { id: remedy.passageId, percent: remedy.speedPercent })
    case 'own-rate':
      return act(setOutput, { output: { ...output, frameRate: null } })
    case 'smaller-file':
      return act(setOutput, { output: { ...output, quality: 'small' } })
    case 'limit-size':
      return act(setOutput, { output: { ...output, mostBytes: remedy.mostBytes } })
    case 'end-at':
      return act(endAt, { t: remedy.atMicros })
    case 'gain':
      return act(changeGain, remedy)
    case 'lengthen-cue':
      return act(lengthenCue, { id: remedy.cueId, toMicros: remedy.toMicros })
    case 'split-cue':
      return act(splitCaption, { id: remedy.cueId, at: remedy.at, newId: remedy.newId })
    case 'style':
      return act(changeStyle, remedy)
  }
}

/**
 * Does what a remedy says, in place; what its command refuses is left. Throws RangeError when the edit lacks a record
 * that it names.
 */
export function applyRemedy(draft: Draft<Edit>, remedy: Remedy): void {
  const { why, apply } = actOf(draft, remedy)
  if (why(draft) === null) apply(draft)
}

/** Does what several remedies say, as one step. */
export const doRemedies = command<{ remedies: readonly Remedy[]; label: string }>({
  id: 'do-remedies',
  label: ({ label }) => label,
  apply: (draft, { remedies }) => {
    for (const remedy of remedies) applyRemedy(draft, remedy)
  },
})

/** What an edit would be with a remedy; null where its command refuses: there is a lock, or nothing to change. */
export function tryRemedy(edit: Edit, remedy: Remedy): Edit | null {
  const { why, apply } = actOf(edit, remedy)
  return why(edit) === null ? produce(edit, apply) : null
}

/**
 * What may be done unasked about findings, without leaving anything out, and the findings that it cures. What cures
 * several is done once; of two that would change one thing in different ways the worse one's is taken.
 */
export function safeRemedies(findings: readonly Finding[]): { remedies: Remedy[]; cured: Finding[] } {
  const remedies = new Map<string, Remedy>()
  const cured = findings.filter(({ remedy }) => {
    if (!remedy || !isSafe(remedy)) return false
    const best = remedies.get(targetOf(remedy))
    if (!best) remedies.set(targetOf(remedy), remedy)
    return !best || JSON.stringify(best) === JSON.stringify(remedy)
  })
  return { remedies: [...remedies.values()], cured }
}
